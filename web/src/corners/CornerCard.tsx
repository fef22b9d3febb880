// A corner as a card: its small plan and picture, verdict, what is next, when it was last used; the rest in a menu.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";

import { api, planOf, type Judged, type Plan, type Schemas } from "../api/client";
import { Rename } from "../ui/Rename";
import { Drawing } from "../drawing/Drawing";
import { formatLength } from "../units/length";
import { button, ButtonLink, FileLink } from "../ui/button";
import { Ask } from "../ui/dialog";
import { Icon } from "../ui/icons";
import { MENU, MENU_ITEM } from "../ui/menu";
import { SHEET } from "../ui/Section";
import { Standing } from "../ui/Standing";
import { Trouble } from "../ui/states";
import { useSeen } from "../ui/useSeen";
import { kept } from "../picture/options";
import { settings } from "../picture/settings";
import { taken } from "../picture/taken";
import { ago } from "./ago";

type Listed = Schemas["Listed"];

interface Props {
  corner: Listed;
  onDeleted: (corner: Listed) => void;
}

export function CornerCard({ corner, onDeleted }: Props) {
  const [card, seen] = useSeen();
  const glance = useGlance(corner, seen);
  const { told } = corner;
  const size = told?.room_m.map((side) => formatLength(side, told.units)).join(" × ");
  const address = `/corners/${String(corner.id)}`;
  return (
    <li ref={card} className={`${SHEET} flex flex-col overflow-hidden`}>
      {told?.verdict && <Glance glance={glance} address={address} corner={corner} />}
      <div className="flex grow flex-col gap-1.5 p-4">
        <div className="flex items-start gap-2">
          <h2 className="mr-auto min-w-0 text-lg leading-snug font-bold">
            {told ? (
              <Link to={address} className="underline-offset-4 hover:underline">
                {corner.name}
              </Link>
            ) : (
              corner.name
            )}
          </h2>
          <Menu corner={corner} onDeleted={onDeleted} />
        </div>
        <p className="text-faint text-sm">
          {size && `${size} · `}used {ago(corner.updated_ms)}
        </p>
        {corner.trouble && <p className="text-ember text-sm font-semibold">▲ {corner.trouble}</p>}
        {told?.verdict && (
          <p>
            <Standing ready={told.verdict.ready} words={told.verdict.sentence} />
          </p>
        )}
        {glance && <Next steps={glance.judged.steps} />}
        {told && !told.verdict && !corner.trouble && (
          <p>
            <Standing ready={false} words="Nothing fits yet." />
          </p>
        )}
        {!told && (
          <p>
            <FileLink size="small" href={`/api/v1${address}/file`} download>
              Save its file
            </FileLink>{" "}
            <ButtonLink size="small" to="/kept">
              See what is wrong
            </ButtonLink>
          </p>
        )}
      </div>
    </li>
  );
}

/** Its picture and plan, and what is next; asked for once it is seen. */
function useGlance(corner: Listed, seen: boolean) {
  return useQuery({
    queryKey: ["glance", corner.id, corner.revision],
    queryFn: async () => {
      const plan = planOf(await api.corner(corner.id));
      if (!plan) return null;
      const judged = await api.assess(plan, { text_scale: 2, frame_text_scale: 1.8, fixes: false });
      return { plan, judged };
    },
    enabled: seen && corner.told?.verdict != null,
    staleTime: Infinity,
  }).data;
}

/** Of the small picture. */
const WIDTH_PX = 480;

interface GlanceProps {
  glance: { plan: Plan; judged: Judged } | null | undefined;
  address: string;
  corner: Listed;
}

function Glance({ glance, address, corner: { id, revision } }: GlanceProps) {
  const drawing = glance?.judged.drawing;
  const { data: picture } = useQuery({
    queryKey: ["corner picture", id, revision],
    queryFn: ({ signal }) => taken(signal, () => api.cornerPicture(id, revision, WIDTH_PX, signal)),
    enabled: drawing !== undefined && !kept().lines,
    staleTime: Infinity,
    retry: false,
  });
  return (
    <Link to={address} tabIndex={-1} aria-hidden="true" className="block">
      <div className="bg-surround grid aspect-[5/2] grid-cols-[3fr_2fr] items-center gap-2 p-2">
        {drawing && (
          <>
            <div className="relative">
              <Drawing view={drawing.frame} title="" className="frame-drawing bare mx-auto" tallest="9rem" />
              {picture && (
                <img src={picture.url} alt="" className="absolute inset-0 m-auto max-h-full rounded-sm" />
              )}
            </div>
            <Drawing
              view={drawing.plan}
              title=""
              className="bare bg-paper mx-auto rounded-sm p-1"
              tallest="9rem"
            />
          </>
        )}
      </div>
      <p className="bg-surround min-h-6 px-2 pb-1.5 text-xs text-white">{glance && settings(glance.plan)}</p>
    </Link>
  );
}

/** What is done next: what stands in the way, else the card. */
function Next({ steps }: { steps: Judged["steps"] }) {
  const next = steps.find((step) => step.state === "stop" || step.state === "fix");
  if (!next) return <p className="text-sm">Next: print the card, lay the marks, record.</p>;
  return (
    <p className="text-sm">
      <span className="font-semibold">Next: {next.title}.</span> {next.next.sentence}
    </p>
  );
}

function Menu({ corner, onDeleted }: Props) {
  const queries = useQueryClient();
  const [asking, setAsking] = useState<"delete" | "rename" | null>(null);
  const again = () => queries.invalidateQueries({ queryKey: ["corners"] });
  const remove = useMutation({
    mutationFn: () => api.remove(corner.id, corner.revision),
    onSuccess: () => onDeleted(corner),
    onSettled: again,
  });
  const duplicate = useMutation({
    mutationFn: async () => {
      const file = await api.cornerFile(corner.id);
      return api.create({ ...(file as object), name: `${corner.name}, copy`.slice(0, 120) });
    },
    onSettled: again,
  });
  const rename = useMutation({
    mutationFn: async (name: string) => {
      const file = await api.cornerFile(corner.id);
      return api.save(corner.id, corner.revision, { ...(file as object), name }, crypto.randomUUID());
    },
    onSettled: again,
  });
  const error = remove.error ?? duplicate.error ?? rename.error;
  return (
    <>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          className={button({ size: "icon", look: "quiet", className: "-my-2" })}
          aria-label={`More for ${corner.name}`}
        >
          <Icon name="more" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Content className={MENU} align="end" sideOffset={4}>
          {corner.told && (
            <>
              <DropdownMenu.Item className={MENU_ITEM} onSelect={() => duplicate.mutate()}>
                Duplicate
              </DropdownMenu.Item>
              <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setAsking("rename")}>
                Rename
              </DropdownMenu.Item>
            </>
          )}
          <DropdownMenu.Item className={MENU_ITEM} asChild>
            <a href={`/api/v1/corners/${String(corner.id)}/file`} download>
              Save as a file
            </a>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} asChild>
            <a href={`/api/v1/corners/${String(corner.id)}/archive`} download>
              Save with its history
            </a>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setAsking("delete")}>
            Delete
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Root>
      <Rename
        open={asking === "rename"}
        name={corner.name}
        onClose={() => setAsking(null)}
        onName={(name) => rename.mutate(name)}
      />
      <Ask
        open={asking === "delete"}
        onOpenChange={(open) => !open && setAsking(null)}
        title={`Delete “${corner.name}”?`}
        words="It goes into the bin, from where it can be brought back for 30 days."
        yes="Delete"
        no="Cancel"
        onYes={() => remove.mutate()}
      />
      {error && <Trouble error={error} />}
    </>
  );
}
