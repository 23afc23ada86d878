import { createHash } from "node:crypto";
import {
  type Block,
  type Booklet,
  type BookletFont,
  bookletFonts,
  type Fact,
  type Line,
  logoSize,
  type Run,
  wordsOfLine,
} from "@/core/booklet";
import { sceneToSvg } from "@/core/drawing";
import { escapeAttribute, escapeText } from "@/core/xml";
import { embeddedFonts } from "../pictures/fonts";

/**
 * A booklet as one page of the web that asks for nothing outside itself: letters and pictures are in it. It can be searched; without its
 * script it is read as well.
 */
export function bookletHtml(booklet: Booklet): string {
  const { title, subtitle, language, facts, contents, blocks, logo } = booklet;
  const words = searchWords[language] ?? searchWords.en;
  const own = script(words);
  // Only this one script may run, whatever somebody has written into a name.
  const hash = createHash("sha256").update(own).digest("base64");
  return `<!doctype html>
<html lang="${escapeAttribute(language)}"><head><meta charset="utf-8"><meta name="robots" content="noindex"><meta name="viewport" content="width=device-width,initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; script-src 'sha256-${hash}'; font-src data:; img-src data:">
<title>${escapeText(title)}</title><style>${fonts(booklet.font ?? "plain")}${style}</style></head>
<body><header>${logo ? logoHtml(logo) : ""}<h1>${escapeText(title)}</h1>${subtitle ? `<p class="under">${escapeText(subtitle)}</p>` : ""}${factsHtml(facts)}</header>
<nav aria-label="${escapeAttribute(contents)}"><h2>${escapeText(contents)}</h2><label>${escapeText(words.search)} <input type="search" id="find" autocomplete="off"></label><p id="found" role="status"></p>${contentsHtml(blocks)}</nav>
<main>${sectionsHtml(blocks)}</main>
<script>${own}</script></body></html>
`;
}

const logoHtml = (png: Uint8Array) =>
  `<img alt="" width="${logoSize.width}" height="${logoSize.height}" src="data:image/png;base64,${Buffer.from(png).toString("base64")}">`;

const searchWords: { readonly [language: string]: { search: string; none: string; found: string } } & {
  readonly en: { search: string; none: string; found: string };
} = {
  en: { search: "Find", none: "Nothing has all of these words.", found: "parts have all of these words." },
  de: { search: "Suchen", none: "Nichts enthält all diese Wörter.", found: "Teile enthalten all diese Wörter." },
};

const fallbacks = { plain: "Verdana,sans-serif", serif: "Georgia,serif" } as const;
/** The letters of the booklet, and of its pictures, which are always the plain ones. */
function fonts(font: BookletFont): string {
  const faces = [...new Set([font, "plain"] as const)].flatMap((one) =>
    Object.entries(embeddedFonts(one)).map(
      ([weight, data]) =>
        `@font-face{font-family:"${bookletFonts[one]}";font-weight:${weight};src:url(data:font/woff2;base64,${data}) format("woff2")}`,
    ),
  );
  return `${faces.join("")}body{font:16px/1.5 "${bookletFonts[font]}",${fallbacks[font]}}`;
}

const style = `
body{color:#1E2430;background:#F7F4EC;margin:0 auto;max-width:78rem;padding:1rem;display:grid;grid-template-columns:minmax(0,18rem) minmax(0,1fr);gap:0 2rem}
header{grid-column:1/-1;border-bottom:3px solid #5B2A6E;margin-bottom:1rem}h1,h2,h3{line-height:1.25;font-weight:600}.under{font-size:1.15rem;margin-top:-.5rem}
nav{position:sticky;top:0;align-self:start;max-height:100vh;overflow:auto;padding-bottom:2rem}nav ol{list-style:none;padding-left:.9rem;margin:0}nav>ol{padding-left:0}nav h2{font-size:1rem}nav input{font:inherit;width:100%;box-sizing:border-box;padding:.3rem .5rem}
a{color:#5B2A6E}section{scroll-margin-top:1rem}section[hidden]{display:none}
dl{display:grid;grid-template-columns:minmax(7rem,max-content) minmax(0,1fr);gap:.15rem 1rem;margin:.4rem 0}dt{color:#64748B}dd{margin:0;overflow-wrap:anywhere}
table{border-collapse:collapse;width:100%;background:#fff}caption{text-align:left;font-weight:600;padding:.4rem 0}th,td{border:1px solid #D8D2C4;padding:.3rem .5rem;text-align:left;vertical-align:top;overflow-wrap:anywhere}
.wide{overflow:auto}figure{margin:1rem 0}figure div{overflow:auto;background:#fff;border:1px solid #D8D2C4}figcaption{color:#64748B}svg{display:block;height:auto;max-width:none}.told{cursor:pointer}.told:hover path{stroke:#5B2A6E}section:target>h4{color:#5B2A6E}
@media(max-width:46rem){body{display:block}nav{position:static;max-height:none}dl{display:block}dd{margin-bottom:.3rem}}
@media print{body{display:block;background:#fff}nav label,#found{display:none}nav{position:static;max-height:none}figure svg{max-width:100%}h2,h3{break-after:avoid}}
`;

/** Hides what does not have all words that are looked for (headings above what has them stay); in a picture, a click leads to where something is told of. */
const script = ({ none, found }: { readonly none: string; readonly found: string }) =>
  `(function(){var f=document.getElementById("find"),n=document.getElementById("found"),all=[].slice.call(document.querySelectorAll("main section"));f.addEventListener("input",function(){var w=f.value.toLowerCase().split(/\\s+/).filter(Boolean),c=0,keep=new Set();all.forEach(function(s){if(w.every(function(x){return s.dataset.own.indexOf(x)>=0})){if(w.length)c++;for(var p=s;p&&p.tagName==="SECTION";p=p.parentElement)keep.add(p)}});all.forEach(function(s){s.hidden=!keep.has(s)});n.textContent=w.length?(c?c+" ${found}":"${none}"):""});var of=new Map();all.forEach(function(s){if(s.dataset.of!==undefined&&!of.has(s.dataset.of))of.set(s.dataset.of,s)});[].forEach.call(document.querySelectorAll("svg g[data-element]"),function(g){var s=of.get(g.dataset.element);if(!s)return;g.classList.add("told");g.addEventListener("click",function(){if(s.hidden){f.value="";f.dispatchEvent(new Event("input"))}location.hash=s.id})})})()`;

function runHtml({ text, isStrong, isEmphasis, link }: Run): string {
  let html = escapeText(text).replaceAll("\n", "<br>");
  if (isEmphasis) html = `<em>${html}</em>`;
  if (isStrong) html = `<strong>${html}</strong>`;
  if (link !== undefined)
    html = `<a href="${escapeAttribute(link)}"${link.startsWith("#") ? "" : ' rel="noreferrer noopener"'}>${html}</a>`;
  return html;
}
const lineHtml = (says: Line) => says.map(runHtml).join("");

const factsHtml = (facts: readonly Fact[]) =>
  facts.length === 0
    ? ""
    : `<dl>${facts.map(({ name, says }) => `<dt>${escapeText(name)}</dt><dd>${lineHtml(says)}</dd>`).join("")}</dl>`;

function blockHtml(block: Exclude<Block, { kind: "heading" }>): string {
  switch (block.kind) {
    case "paragraph":
      return `<p>${lineHtml(block.says)}</p>`;
    case "list": {
      const tag = block.isOrdered ? "ol" : "ul";
      return `<${tag}>${block.items.map((item) => `<li>${lineHtml(item)}</li>`).join("")}</${tag}>`;
    }
    case "facts":
      return factsHtml(block.facts);
    case "table": {
      const head = block.columns.map(({ name }) => `<th scope="col">${escapeText(name)}</th>`).join("");
      const rows = block.rows.map((cells) => `<tr>${cells.map((cell) => `<td>${lineHtml(cell)}</td>`).join("")}</tr>`);
      return `<div class="wide" tabindex="0"><table><caption>${escapeText(block.caption)}</caption><thead><tr>${head}</tr></thead><tbody>${rows.join("")}</tbody></table></div>`;
    }
    case "picture": {
      const svg = sceneToSvg(block.scene, { title: block.shows })
        .replace(/^<\?xml[^>]*\?>\s*/, "")
        .replace("<svg ", '<svg role="img" ');
      return `<figure><div tabindex="0">${svg}</div><figcaption>${escapeText(block.caption)}</figcaption></figure>`;
    }
  }
}

/** Each heading with what stands below it, those of a lower level inside those of a higher. */
function sectionsHtml(blocks: readonly Block[]): string {
  const out: string[] = [];
  const open: number[] = [];
  const own: Block[][] = [];
  for (const block of blocks)
    if (block.kind === "heading") own.push([block]);
    else own.at(-1)?.push(block);
  let at = 0;
  for (const block of blocks) {
    if (block.kind !== "heading") {
      out.push(blockHtml(block));
      continue;
    }
    while ((open.at(-1) ?? 0) >= block.level) {
      open.pop();
      out.push("</section>");
    }
    open.push(block.level);
    const words = (own[at++] ?? []).map(wordsOfBlock).join(" ").toLowerCase();
    const tag = `h${block.level + 1}`;
    out.push(
      `<section id="${escapeAttribute(block.anchor)}" data-own="${escapeAttribute(words)}"${block.of === undefined ? "" : ` data-of="${escapeAttribute(block.of)}"`}><${tag}>${escapeText(block.text)}</${tag}>`,
    );
  }
  out.push("</section>".repeat(open.length));
  return out.join("\n");
}

const factWords = ({ name, says }: Fact) => `${name} ${wordsOfLine(says)}`;

function wordsOfBlock(block: Block): string {
  switch (block.kind) {
    case "heading":
      return block.text;
    case "paragraph":
      return wordsOfLine(block.says);
    case "list":
      return block.items.map(wordsOfLine).join(" ");
    case "facts":
      return block.facts.map(factWords).join(" ");
    case "table":
      return [block.caption, ...block.rows.flatMap((cells) => cells.map(wordsOfLine))].join(" ");
    case "picture":
      return block.caption;
  }
}

function contentsHtml(blocks: readonly Block[]): string {
  const out: string[] = [];
  let depth = 0;
  for (const block of blocks) {
    if (block.kind !== "heading") continue;
    for (; depth < block.level; depth++) out.push("<ol>");
    for (; depth > block.level; depth--) out.push("</ol>");
    out.push(`<li><a href="#${escapeAttribute(block.anchor)}">${escapeText(block.text)}</a></li>`);
  }
  out.push("</ol>".repeat(depth));
  return out.join("");
}
