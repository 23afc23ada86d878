import {
  AlignmentType,
  Bookmark,
  BorderStyle,
  Document,
  ExternalHyperlink,
  Footer,
  HeadingLevel,
  ImageRun,
  InternalHyperlink,
  LevelFormat,
  Packer,
  PageNumber,
  PageOrientation,
  Paragraph,
  type ParagraphChild,
  SectionType,
  Table,
  TableCell,
  TableOfContents,
  TableRow,
  TextRun,
  WidthType,
} from "docx";
import { type Block, type Booklet, bookletFonts, type Fact, type Line, logoSize, type Run } from "@/core/booklet";
import type { Scene } from "@/core/drawing";
import { sceneToPng } from "../pictures/png";

/** Twentieths of a point, in which Word measures: A4 (ISO 216), its margins, and what is left between them. */
const paper = { width: 11906, height: 16838, margin: 1134 } as const;
/** Picture points (96 to the inch) between the margins, upright and lying. */
const room = { upright: { width: 640, height: 880 }, lying: { width: 960, height: 560 } } as const;

/** A booklet as a Word document (Office Open XML): headings by its styles, contents that Word fills, captions, links within. */
export async function bookletWord(booklet: Booklet): Promise<Uint8Array> {
  const { title, subtitle, language, facts, contents, blocks, logo } = booklet;
  const writer = new WordWriter();
  const sections: { lying: boolean; children: (Paragraph | Table | TableOfContents)[] }[] = [
    {
      lying: false,
      children: [
        ...(logo ? [logoParagraph(logo)] : []),
        new Paragraph({ style: "Title", children: [new TextRun(xmlText(title))] }),
        ...(subtitle ? [new Paragraph({ style: "Subtitle", children: [new TextRun(xmlText(subtitle))] })] : []),
        ...writer.facts(facts),
        new Paragraph({ style: "ContentsTitle", children: [new TextRun(xmlText(contents))], pageBreakBefore: true }),
        new TableOfContents(xmlText(contents), { hyperlink: true, headingStyleRange: "1-3" }),
      ],
    },
    { lying: false, children: [] },
  ];
  for (const block of blocks) {
    const made = writer.block(block);
    // A wide picture gets a page that lies on its side.
    if (block.kind === "picture" && isWide(block.scene)) {
      sections.push({ lying: true, children: made }, { lying: false, children: [] });
    } else sections.at(-1)?.children.push(...made);
  }
  const document = new Document({
    title: xmlText(title),
    creator: "Lucid Lane",
    features: { updateFields: true },
    styles: styles(language, bookletFonts[booklet.font ?? "plain"]),
    numbering: { config: writer.numberings() },
    sections: sections
      .filter(({ children }) => children.length > 0)
      .map(({ lying, children }) => ({
        properties: {
          type: SectionType.NEXT_PAGE,
          page: {
            size: {
              width: paper.width,
              height: paper.height,
              orientation: lying ? PageOrientation.LANDSCAPE : PageOrientation.PORTRAIT,
            },
            margin: { top: paper.margin, bottom: paper.margin, left: paper.margin, right: paper.margin },
          },
        },
        footers: { default: footer(title) },
        children,
      })),
  });
  return new Uint8Array(await Packer.toBuffer(document));
}

/** Letters that XML has no way to write are left out. */
const xmlText = (text: string) => text.replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, "");

const isWide = ({ bounds }: Scene) => bounds.width > room.upright.width * 1.2 && bounds.width > bounds.height;

const footer = (title: string) =>
  new Footer({
    children: [
      new Paragraph({
        alignment: AlignmentType.RIGHT,
        children: [
          new TextRun({ children: [`${xmlText(title)}   `, PageNumber.CURRENT, " / ", PageNumber.TOTAL_PAGES] }),
        ],
      }),
    ],
  });

const ink = "1E2430";
const accent = "5B2A6E";
const pencil = "64748B";

const styles = (language: string, font: string) => {
  const heading = (size: number, before: number) => ({
    run: { size, bold: true, color: ink, font },
    paragraph: { spacing: { before, after: 80 }, keepNext: true },
  });
  return {
    default: {
      document: {
        run: { font, size: 21, color: ink, language: { value: language } },
        paragraph: { spacing: { after: 80 } },
      },
      title: {
        run: { size: 52, bold: true, color: accent, font },
        paragraph: { spacing: { before: 2400, after: 120 } },
      },
      heading1: { ...heading(36, 360), paragraph: { spacing: { before: 360, after: 80 }, keepNext: true } },
      heading2: heading(28, 300),
      heading3: heading(23, 220),
    },
    paragraphStyles: [
      { id: "Subtitle", name: "Subtitle", basedOn: "Normal", run: { size: 28, color: pencil } },
      {
        id: "Caption",
        name: "caption",
        basedOn: "Normal",
        run: { size: 19, color: pencil },
        paragraph: { spacing: { before: 60, after: 160 } },
      },
      { id: "ContentsTitle", name: "Contents Title", basedOn: "Normal", run: { size: 30, bold: true } },
    ],
  };
};

/** Writes blocks one after the other; knows which lists there were, since each counts by itself. */
class WordWriter {
  private lists = 0;

  numberings() {
    return Array.from({ length: this.lists }, (_, at) => ({
      reference: `list-${at + 1}`,
      levels: [
        {
          level: 0,
          format: LevelFormat.DECIMAL,
          text: "%1.",
          alignment: AlignmentType.LEFT,
          style: { paragraph: { indent: { left: 480, hanging: 360 } } },
        },
      ],
    }));
  }

  block(block: Block): (Paragraph | Table)[] {
    switch (block.kind) {
      case "heading": {
        const levels = [HeadingLevel.HEADING_1, HeadingLevel.HEADING_2, HeadingLevel.HEADING_3] as const;
        return [
          new Paragraph({
            heading: levels[block.level - 1] ?? HeadingLevel.HEADING_3,
            pageBreakBefore: block.isChapter === true,
            children: [new Bookmark({ id: bookmark(block.anchor), children: [new TextRun(xmlText(block.text))] })],
          }),
        ];
      }
      case "paragraph":
        return [new Paragraph({ children: line(block.says) })];
      case "list": {
        if (block.isOrdered) this.lists++;
        const reference = `list-${this.lists}`;
        return block.items.map(
          (item) =>
            new Paragraph({
              children: line(item),
              ...(block.isOrdered ? { numbering: { reference, level: 0 } } : { bullet: { level: 0 } }),
            }),
        );
      }
      case "facts":
        return this.facts(block.facts);
      case "table":
        return [
          new Paragraph({ style: "Caption", keepNext: true, children: [new TextRun(xmlText(block.caption))] }),
          table(
            block.columns.map(({ share }) => share),
            [block.columns.map(({ name }): Line => [{ text: name, isStrong: true }])],
            block.rows,
          ),
          new Paragraph({}),
        ];
      case "picture":
        return picture(block);
    }
  }

  /** Two columns without lines: what, and what it is. */
  facts(facts: readonly Fact[]): (Paragraph | Table)[] {
    if (facts.length === 0) return [];
    const rows = facts.map(({ name, says }): readonly Line[] => [[{ text: name, isEmphasis: true }], says]);
    return [table([1, 3], [], rows, true), new Paragraph({ spacing: { after: 60 } })];
  }
}

/** A bookmark's name has at most 40 letters; what is longer keeps its beginning and a number made of the whole. */
function bookmark(anchor: string): string {
  const name = anchor.replace(/[^A-Za-z0-9_]/g, "_");
  if (name.length <= 40) return name;
  let hash = 7;
  for (const letter of anchor) hash = (hash * 31 + (letter.codePointAt(0) as number)) % 2_147_483_647;
  return `${name.slice(0, 28)}_${hash}`;
}

function line(says: Line): ParagraphChild[] {
  return says.flatMap((run): ParagraphChild[] => {
    if (run.link === undefined) return words(run);
    const children = words(run, true);
    return run.link.startsWith("#")
      ? [new InternalHyperlink({ anchor: bookmark(run.link.slice(1)), children })]
      : [new ExternalHyperlink({ link: xmlText(run.link), children })];
  });
}

/** Each line of it is a piece of its own. */
function words({ text, isStrong, isEmphasis }: Run, isLink = false): TextRun[] {
  const look = {
    ...(isStrong && { bold: true }),
    ...(isEmphasis && { italics: true }),
    ...(isLink && { color: accent }),
  };
  return xmlText(text)
    .split("\n")
    .map((piece, at) => new TextRun({ text: piece, ...look, ...(at > 0 && { break: 1 }) }));
}

function table(
  shares: readonly number[],
  head: readonly (readonly Line[])[],
  rows: readonly (readonly Line[])[],
  isPlain = false,
): Table {
  const whole = shares.reduce((sum, share) => sum + share, 0);
  const inside = paper.width - 2 * paper.margin;
  const widths = shares.map((share) => Math.round((share / whole) * inside));
  const side = isPlain
    ? { style: BorderStyle.NONE, size: 0, color: "auto" }
    : { style: BorderStyle.SINGLE, size: 4, color: "C9C2B2" };
  const borders = { top: side, bottom: side, left: side, right: side };
  const row = (cells: readonly Line[], isHead: boolean) =>
    new TableRow({
      tableHeader: isHead,
      cantSplit: false,
      children: cells.map(
        (cell, at) =>
          new TableCell({
            width: { size: widths[at] ?? 0, type: WidthType.DXA },
            borders,
            margins: { top: 40, bottom: 40, left: isPlain ? 0 : 90, right: 90 },
            ...(isHead && { shading: { fill: "F7F4EC" } }),
            children: [new Paragraph({ spacing: { after: 0 }, children: line(cell) })],
          }),
      ),
    });
  return new Table({
    width: { size: inside, type: WidthType.DXA },
    columnWidths: widths,
    rows: [...head.map((cells) => row(cells, true)), ...rows.map((cells) => row(cells, false))],
  });
}

/** More than this along a side Word will not show well; fewer points to the unit then. */
const mostPixels = 6_000;

function picture({ scene, caption, shows }: Block & { kind: "picture" }): Paragraph[] {
  const { width, height } = scene.bounds;
  const [wide, high] = [width + 32, height + 32];
  const scale = Math.min(3, mostPixels / Math.max(wide, high));
  const { width: most, height: highest } = isWide(scene) ? room.lying : room.upright;
  const shown = Math.min(1, most / wide, highest / high);
  return [
    new Paragraph({
      keepNext: true,
      children: [
        new ImageRun({
          type: "png",
          data: sceneToPng(scene, { scale, title: shows }),
          transformation: { width: Math.round(wide * shown), height: Math.round(high * shown) },
          altText: { title: xmlText(caption), description: xmlText(shows), name: xmlText(caption) },
        }),
      ],
    }),
    new Paragraph({ style: "Caption", children: [new TextRun(xmlText(caption))] }),
  ];
}

const logoParagraph = (png: Uint8Array) =>
  new Paragraph({
    children: [
      new ImageRun({
        type: "png",
        data: png,
        // Picture points: 96 to the inch, where a point is a 72nd.
        transformation: { width: (logoSize.width * 96) / 72, height: (logoSize.height * 96) / 72 },
      }),
    ],
  });
