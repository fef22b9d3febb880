// The score with its working: the parts it is made of and what each weighs.
import type { Judged } from "../api/client";
import { fixed } from "../units/length";
import { capital } from "../units/text";
import { Section } from "../ui/Section";
import { Table } from "../ui/Table";
import { Term } from "../ui/terms";

export function Score({ assessment }: { assessment: Judged["assessment"] }) {
  return (
    <Section title={`Score: ${fixed(100 * assessment.score, 0)} of 100`}>
      <Table>
        <thead>
          <tr>
            <th>Aspect</th>
            <th>Of 100</th>
            <th>Weight</th>
          </tr>
        </thead>
        <tbody>
          {assessment.aspects.map((part) => (
            <tr key={part.aspect}>
              <td>{capital(part.aspect)}</td>
              <td>
                {part.score === null || part.score === undefined ? "no reading" : fixed(100 * part.score, 0)}
              </td>
              <td>{fixed(100 * part.weight, 0)} %</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="text-faint mt-2 text-sm">
        The weighted mean over the aspects that have a reading. The weights follow the spending{" "}
        <Term word="School">school</Term>. Source: Fogon&rsquo;s own rule.
      </p>
    </Section>
  );
}
