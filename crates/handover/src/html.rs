//! The card as one HTML page that prints well on A4 and Letter, in black and white.

use std::fmt::Write as _;

use fogon_core::card::{Card, Setting};
use fogon_core::room::FromCorner;

use crate::sketch::DEFS;
use crate::svg::{AIMS, drawing, html_scale};
use crate::{Paper, escaped};

const STYLE: &str = "
*{box-sizing:border-box}
body{font:9.5pt/1.3 'Atkinson Hyperlegible Next','DejaVu Sans',Arial,sans-serif;color:#000;background:#fff;margin:0 auto;padding:10mm;max-width:216mm;font-variant-numeric:tabular-nums}
h1{font-size:16pt;line-height:1.15;margin:0}
h2{font-size:10pt;margin:3mm 0 1mm;break-after:avoid}
p{margin:1mm 0}
.top{border-bottom:.3mm solid #000;padding-bottom:1.5mm}
.views{display:flex;gap:6mm;align-items:flex-start;flex-wrap:wrap}
.views>div{min-width:0}
.views svg{display:block;max-width:100%;height:auto}
.side{flex:1 1 58mm}
table{border-collapse:collapse;width:100%}
th,td{text-align:left;vertical-align:top;padding:.7mm 2.5mm .7mm 0;border-bottom:.15mm solid #888}
th{font-size:8pt;line-height:1.15}
.n{font-weight:700;white-space:nowrap;font-size:10.5pt}
.what{width:45%}
tr{break-inside:avoid}
.set{display:block;font-size:8.5pt;color:#222}
dl{display:grid;grid-template-columns:max-content 1fr;gap:.3mm 2.5mm;margin:0;font-size:9pt}
dt{font-weight:700}dd{margin:0}
ul{margin:0;padding-left:5mm;font-size:8.5pt;line-height:1.25}
.tick{list-style:'\\2610\\00a0'}
.off{white-space:nowrap}
.note{font-size:8pt;margin:.5mm 0 0}
.short{grid-template-columns:max-content 1fr max-content 1fr}
.two{display:grid;grid-template-columns:1fr 1fr;gap:6mm;font-size:8.5pt}
.frame{border:.4mm solid #000;line-height:0;width:fit-content;max-width:100%}
@media (max-width:640px){.two{grid-template-columns:1fr}body{padding:4mm}.marks{overflow-x:auto}}
@media print{body{padding:0;max-width:none;font-size:9pt;line-height:1.22}h2{margin-top:2mm}ul{font-size:8pt}}
";

/// The card's page.
pub fn card(card: &Card, paper: Paper) -> String {
    let size = match paper {
        Paper::A4 => "A4",
        Paper::Letter => "letter",
    };
    let (mm, n) = html_scale(card);
    let frame_mm = (52.0 / card.drawing.frame.bounds[2]).min(62.0);
    let mut marks = String::new();
    let length = |v: f64| escaped(&card.units.mark(v));
    let from_corner =
        |from: &FromCorner| format!("<em>{}</em> {}", escaped(from.corner), length(from.length_m));
    for m in &card.marks {
        let error = m.tape.worst_error_m.map_or("\u{2013}".into(), |e| format!("{:.0} mm", e * 1000.0));
        let _ = write!(
            marks,
            "<tr><td class=\"n\">{} {}</td><td><strong>{}</strong><span class=\"set\">{}</span></td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"off\">{error}</td></tr>",
            m.number,
            escaped(&m.letter),
            escaped(&m.what),
            escaped(&m.set),
            length(m.tape.from_left_m),
            length(m.tape.from_back_m),
            from_corner(&m.tape.corners[0]),
            from_corner(&m.tape.corners[1]),
        );
    }
    // What is set on the camera stands two to a row, if it is short.
    let (short, long): (Vec<_>, Vec<_>) =
        card.settings.iter().partition(|s| s.value.len() < 16 && !matches!(s.name, "Body" | "Lens"));
    let listed = |settings: Vec<&Setting>| -> String {
        settings.iter().map(|s| format!("<dt>{}</dt><dd>{}</dd>", s.name, escaped(&s.value))).collect()
    };
    let (short, long) = (listed(short), listed(long));
    let dials: String = card
        .dials
        .iter()
        .map(|d| {
            let percent = d.percent.map(|p| format!("<strong>{p:.0} %</strong>, ")).unwrap_or_default();
            let cct = d.cct_k.map(|k| format!("{k:.0} K, ")).unwrap_or_default();
            format!(
                "<dt>{}</dt><dd>{}: {percent}{cct}{}</dd>",
                escaped(&d.letter),
                escaped(&d.what),
                escaped(&d.place)
            )
        })
        .collect();
    let list =
        |items: &[String]| items.iter().map(|i| format!("<li>{}</li>", escaped(i))).collect::<String>();
    let before: String =
        card.before.iter().map(|b| format!("<li class=\"tick\">{}</li>", escaped(b))).collect();
    let assumed = if card.assumed.is_empty() {
        String::new()
    } else {
        format!("<p><strong>Assumed, not measured:</strong> {}.</p>", escaped(&card.assumed.join("; ")))
    };
    format!(
        "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width,initial-scale=1\"><title>{name}: set-up card</title><style>@page{{size:{size};margin:9mm}}{STYLE}</style></head><body><main aria-label=\"Set-up card\">\
<svg width=\"0\" height=\"0\" aria-hidden=\"true\" style=\"position:absolute\">{DEFS}</svg>\
<div class=\"top\"><h1>{name}</h1><p>Set-up card. Room {room}. <strong>{verdict}</strong> Left and right are the camera's.</p></div>\
<div class=\"views\"><div><h2>Plan and side view, 1 : {n:.0}</h2>{plan}{side}</div>\
<div class=\"side\"><h2>Picture</h2><div class=\"frame\">{frame}</div><h2>Camera</h2><dl>{long}</dl><dl class=\"short\">{short}</dl><h2>Lights</h2><dl>{dials}</dl><h2>Microphone</h2><p>{microphone}</p></div></div>\
<h2>Marks, in the order to lay them</h2><div class=\"marks\"><table><thead><tr><th>Tape</th><th class=\"what\">What stands there</th><th>from left wall</th><th>from back wall</th><th>from corner</th><th>from corner</th><th>off by<br>at most*</th></tr></thead><tbody>{marks}</tbody></table></div><p class=\"note\">{AIMS} * By the two corner distances, for 1 cm of tape error in each; wall offsets are as good as the tape.</p>\
<div class=\"two\"><section><h2>Before every take</h2><ul>{before}</ul></section><section><h2>Cautions</h2><ul>{cautions}</ul>{assumed}</section></div>\
</main></body></html>\n",
        name = escaped(&card.name),
        room = escaped(&card.room),
        verdict = escaped(&card.verdict),
        plan = drawing(&card.drawing.plan, mm, "Plan"),
        side = drawing(&card.drawing.side, mm, "Side view"),
        frame = drawing(&card.drawing.frame, frame_mm, "Picture as the lens sees it"),
        microphone = escaped(&card.microphone),
        cautions = list(&card.cautions),
    )
}
