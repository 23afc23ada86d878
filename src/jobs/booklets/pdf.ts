import PDFDocument from "pdfkit";
import { type Block, type Booklet, type BookletFont, type Fact, type Line, logoSize, type Run } from "@/core/booklet";
import { exportPalette, leastPrint, papers, planSheets, type Scene, smallestPrint } from "@/core/drawing";
import { ascents } from "../pictures/letters";
import { drawFigure, finished, type PdfDocument } from "../pictures/pdfFigures";
import { drawWords, type Setting, widthOfWords } from "../pictures/pdfWords";
import { type Piece, setInLines } from "./lines";

const page = papers.A4;
const margin = 56;
const inside = page.width - 2 * margin;
const bottom = page.height - margin;
const sizes = { title: 26, subtitle: 14, body: 10, small: 8.5, heading: [18, 14, 11.5] } as const;
const lead = 1.35;

type Structure = PDFKit.PDFStructureElement;

/** Words that nothing is special about. */
const bare: Run = { text: "" };

/**
 * A booklet as a PDF: a cover, contents with the numbers of pages, bookmarks, links, and a tagged structure for whoever hears it read
 * (ISO 32000-1, 14.8). The same booklet gives the same file.
 */
export function bookletPdf(booklet: Booklet): Promise<Uint8Array> {
  const document = new PDFDocument({
    autoFirstPage: false,
    bufferPages: true,
    margin: 0,
    size: "A4",
    lang: booklet.language,
    tagged: true,
    displayTitle: true,
    pdfVersion: "1.7",
    info: { Title: booklet.title, Creator: "Lucid Lane", CreationDate: new Date(0), ModDate: new Date(0) },
  });
  const file = finished(document);
  new PdfWriter(document, booklet.font ?? "plain").write(booklet);
  document.end();
  return file;
}

/** Writes from the top of a page to its foot, and then on the next. */
class PdfWriter {
  private y = margin;
  private readonly root: Structure;
  private readonly headings: { readonly block: Block & { kind: "heading" }; readonly page: number }[] = [];

  constructor(
    private readonly document: PdfDocument,
    private readonly font: BookletFont,
  ) {
    this.root = document.struct("Document");
    document.addStructure(this.root);
  }

  write({ title, subtitle, facts, contents, blocks, logo }: Booklet): void {
    this.nextPage();
    // It says nothing that the title does not.
    if (logo)
      this.artifact(() =>
        this.document.image(Buffer.from(logo), margin, margin, { fit: [logoSize.width, logoSize.height] }),
      );
    this.y = page.height / 4;
    this.paragraph("H1", [{ text: title, isStrong: true }], sizes.title, exportPalette.accent);
    if (subtitle) this.paragraph("P", [{ text: subtitle }], sizes.subtitle, exportPalette.pencil);
    this.y += 16;
    this.facts(facts);
    const listed = blocks.filter((block) => block.kind === "heading");
    const contentPages = this.reserveContents(listed.length);
    const toc = this.under(this.root, "TOC");
    if (blocks.length > 0) this.nextPage();
    for (const [at, block] of blocks.entries()) this.block(block, blocks[at + 1]);
    this.writeContents(toc, contents, contentPages);
    this.bookmarks();
    this.foot(title);
    this.root.end();
  }

  private nextPage(layout: "portrait" | "landscape" = "portrait"): void {
    this.document.addPage({ size: "A4", layout, margin: 0 });
    this.y = margin;
  }

  private get pages(): number {
    return this.document.bufferedPageRange().count;
  }

  /** Room for this much; else the next page. */
  private needs(height: number): void {
    if (this.y + height > bottom && this.y > margin) this.nextPage();
  }

  private under(parent: Structure, tag: string, options: PDFKit.Mixins.StructureElementOptions = {}): Structure {
    const made = this.document.struct(tag, options);
    parent.add(made);
    return made;
  }

  /** Draws something that belongs to an element of the structure. */
  private marked(element: Structure, tag: string, draw: () => void): void {
    const content = this.document.markStructureContent(tag);
    draw();
    this.document.endMarkedContent();
    element.add(content);
  }

  /** Draws what is only for the eye. */
  private artifact(draw: () => void): void {
    this.document.markContent("Artifact", { type: "Layout" });
    draw();
    this.document.endMarkedContent();
  }

  private setting(run: Run, size: number): Setting {
    return { font: this.font, weight: run.isStrong ? 600 : 400, size };
  }

  private widthOf(text: string, run: Run, size: number): number {
    return widthOfWords(this.document, text, this.setting(run, size));
  }

  /** Draws words from a place on, `y` being where the line begins. */
  private words(text: string, run: Run, x: number, y: number, size: number): void {
    const at = { x, baseline: y + ascents[this.font] * size };
    drawWords(this.document, text, at, { ...this.setting(run, size), isOblique: run.isEmphasis });
  }

  private lines(says: Line, room: number, size: number): Piece[][] {
    return setInLines(says, room, (text, run) => this.widthOf(text, run, size));
  }

  /** Draws a line of pieces from a place on. */
  private drawLine(pieces: readonly Piece[], x: number, y: number, size: number, colour: string): void {
    for (const { text, x: from, width, run } of pieces) {
      this.document.fillColor(run.link === undefined ? colour : exportPalette.accent);
      this.words(text, run, x + from, y, size);
      if (run.link === undefined) continue;
      const [top, high] = [y, size * lead];
      if (run.link.startsWith("#")) this.document.goTo(x + from, top, width, high, run.link.slice(1));
      else this.document.link(x + from, top, width, high, run.link);
    }
  }

  /** Words below each other, over as many pages as it takes. */
  private paragraph(tag: string, says: Line, size: number, colour: string = exportPalette.ink, indent = 0): void {
    const element = this.under(this.root, tag);
    for (const pieces of this.lines(says, inside - indent, size)) {
      this.needs(size * lead);
      this.marked(element, tag, () => this.drawLine(pieces, margin + indent, this.y, size, colour));
      this.y += size * lead;
    }
    element.end();
    this.y += size * 0.4;
  }

  private block(block: Block, next: Block | undefined): void {
    switch (block.kind) {
      case "heading":
        return this.heading(block, next);
      case "paragraph":
        return this.paragraph("P", block.says, sizes.body);
      case "list":
        return this.list(block.items, block.isOrdered);
      case "facts":
        return this.facts(block.facts);
      case "table":
        return this.table(block);
      case "picture":
        return this.picture(block);
    }
  }

  private heading(block: Block & { kind: "heading" }, next: Block | undefined): void {
    const size = sizes.heading[block.level - 1] ?? sizes.heading[2];
    if (block.isChapter && this.headings.length > 0) this.nextPage();
    else if (this.y > margin) this.y += size * 0.9;
    // A heading stays with what comes behind it.
    const behind = next?.kind === "facts" ? Math.min(next.facts.length + 1, 14) : 3;
    this.needs(size * lead + behind * sizes.body * lead);
    this.document.addNamedDestination(block.anchor, "XYZ", 0, this.y, null);
    this.headings.push({ block, page: this.pages });
    this.paragraph(`H${block.level + 1}`, [{ text: block.text, isStrong: true }], size);
  }

  private list(items: readonly Line[], isOrdered: boolean): void {
    const size = sizes.body;
    const list = this.under(this.root, "L");
    for (const [at, item] of items.entries()) {
      const element = this.under(list, "LI");
      const sign: Run = { text: isOrdered ? `${at + 1}.` : "•" };
      for (const [line, pieces] of this.lines(item, inside - 22, size).entries()) {
        this.needs(size * lead);
        if (line === 0)
          this.marked(this.under(element, "Lbl"), "Lbl", () =>
            this.drawLine(
              [{ text: sign.text, x: 0, width: 0, run: sign }],
              margin + 6,
              this.y,
              size,
              exportPalette.ink,
            ),
          );
        this.marked(this.under(element, "LBody"), "LBody", () =>
          this.drawLine(pieces, margin + 22, this.y, size, exportPalette.ink),
        );
        this.y += size * lead;
      }
    }
    list.end();
    this.y += size * 0.4;
  }

  /** What, and what it is, side by side without lines. */
  private facts(facts: readonly Fact[]): void {
    if (facts.length === 0) return;
    const rows = facts.map(({ name, says }): readonly Line[] => [[{ text: name }], says]);
    this.rows([1, 3.4], [], rows, { isRuled: false, size: sizes.body });
    this.y += sizes.body * 0.4;
  }

  private table({ caption, columns, rows }: Block & { kind: "table" }): void {
    this.needs(6 * sizes.body * lead);
    this.paragraph("Caption", [{ text: caption, isStrong: true }], sizes.body);
    const head = columns.map(({ name }): Line => [{ text: name, isStrong: true }]);
    this.rows(
      columns.map(({ share }) => share),
      [head],
      rows,
      { isRuled: true, size: sizes.small },
    );
    this.y += sizes.body;
  }

  /** Rows of a table; one that is higher than the rest of a page goes on on the next, under the heads of the columns. */
  private rows(
    shares: readonly number[],
    head: readonly (readonly Line[])[],
    rows: readonly (readonly Line[])[],
    { isRuled, size }: { readonly isRuled: boolean; readonly size: number },
  ): void {
    const whole = shares.reduce((sum, share) => sum + share, 0);
    const widths = shares.map((share) => (share / whole) * inside);
    const starts = widths.map((_, at) => margin + widths.slice(0, at).reduce((sum, width) => sum + width, 0));
    const pad = isRuled ? 4 : 0;
    const high = size * lead;
    const table = this.under(this.root, "Table");
    const rule = () =>
      this.artifact(() => {
        this.document.lineWidth(0.5).strokeColor("#C9C2B2").undash();
        this.document
          .moveTo(margin, this.y)
          .lineTo(margin + inside, this.y)
          .stroke();
      });
    const draw = (cells: readonly Line[], tag: "TH" | "TD", isAgain: boolean) => {
      const set = cells.map((cell, at) => this.lines(cell, (widths[at] as number) - 2 * pad - 4, size));
      const count = Math.max(1, ...set.map((lines) => lines.length));
      const row = isAgain ? undefined : this.under(table, "TR");
      const elements = row && cells.map((_, at) => this.under(row, !isRuled && at === 0 ? "TH" : tag));
      // Only what is higher than a good part of a page goes on on the next one.
      const together = (count * high > (bottom - margin) / 3 ? 2 : count) * high + 2 * pad;
      if (!isAgain && this.y + together > bottom && this.y > margin) {
        this.nextPage();
        if (tag === "TD") for (const cells of head) draw(cells, "TH", true);
      }
      if (isRuled) this.y += pad;
      for (let line = 0; line < count; ) {
        if (this.y + high > bottom) {
          if (isRuled) rule();
          this.nextPage();
          if (tag === "TD") for (const cells of head) draw(cells, "TH", true);
          if (isRuled) this.y += pad;
        }
        // Cell by cell, as it is read; of a high row as much as the page has room for.
        const until = Math.min(count, line + Math.max(1, Math.floor((bottom - this.y) / high)));
        for (const [at, lines] of set.entries())
          for (const [below, pieces] of lines.slice(line, until).entries()) {
            if (pieces.length === 0) continue;
            const colour = !isRuled && at === 0 ? exportPalette.pencil : exportPalette.ink;
            const y = this.y + below * high;
            const put = () => this.drawLine(pieces, (starts[at] as number) + pad, y, size, colour);
            const element = elements?.[at];
            if (element) this.marked(element, tag, put);
            else this.artifact(put);
          }
        this.y += (until - line) * high;
        line = until;
      }
      if (isRuled) {
        this.y += pad - 2;
        rule();
        this.y += 2;
      }
    };
    if (isRuled) rule();
    for (const cells of head) draw(cells, "TH", false);
    for (const cells of rows) draw(cells, "TD", false);
    table.end();
  }

  /** A picture as wide as the page; where it cannot be read so, again on a page of its own, or on several that overlap. */
  private picture({ scene, caption, shows }: Block & { kind: "picture" }): void {
    const { width, height } = scene.bounds;
    const room = { width: inside, height: bottom - margin - 40 };
    const scale = Math.min(0.75, room.width / width, room.height / height);
    const element = this.under(this.root, "Figure", { alt: shows });
    this.needs(height * scale + 30);
    this.marked(element, "Figure", () => this.drawScene(scene, margin, this.y, scale));
    this.y += height * scale + 8;
    this.paragraph("Caption", [{ text: caption }], sizes.small, exportPalette.pencil);
    if (!isReadable(scene, scale)) {
      const fit = planSheets(scene.bounds, { paper: "A4", spread: "fit", foot: 40 });
      const plan = isReadable(scene, fit.scale)
        ? fit
        : planSheets(scene.bounds, { paper: "A4", spread: "tile", foot: 40 });
      for (const [at, { view }] of plan.sheets.entries()) {
        this.nextPage(plan.width > plan.height ? "landscape" : "portrait");
        const { frame } = plan;
        this.marked(element, "Figure", () => {
          this.document.save().rect(frame.x, frame.y, frame.width, frame.height).clip();
          this.document.translate(frame.x - view.x * plan.scale, frame.y - view.y * plan.scale).scale(plan.scale);
          for (const figure of scene.figures) drawFigure(this.document, figure);
          this.document.restore();
        });
        if (plan.sheets.length > 1)
          this.artifact(() => {
            this.document.fillColor(exportPalette.pencil);
            const words = `${at + 1} / ${plan.sheets.length}`;
            this.words(words, bare, frame.x, frame.y + frame.height + 2, sizes.small);
          });
      }
      this.nextPage();
    }
    element.end();
  }

  private drawScene(scene: Scene, x: number, y: number, scale: number): void {
    this.document.save();
    this.document.translate(x - scene.bounds.x * scale, y - scene.bounds.y * scale).scale(scale);
    for (const figure of scene.figures) drawFigure(this.document, figure);
    this.document.restore();
  }

  /** Contents stand before what they list; their pages are kept free until the numbers are known. */
  private reserveContents(entries: number): { readonly first: number; readonly count: number } {
    const perPage = Math.floor((bottom - margin - 40) / contentLine);
    const count = entries === 0 ? 0 : Math.ceil(entries / perPage);
    const first = this.pages;
    for (let at = 0; at < count; at++) this.nextPage();
    return { first, count };
  }

  private writeContents(
    toc: Structure,
    name: string,
    { first, count }: { readonly first: number; readonly count: number },
  ): void {
    const perPage = Math.floor((bottom - margin - 40) / contentLine);
    for (let at = 0; at < count; at++) {
      this.document.switchToPage(first + at);
      if (at === 0) {
        const head: Run = { text: name, isStrong: true };
        this.marked(this.under(toc, "Caption"), "Caption", () =>
          this.drawLine(
            [{ text: name, x: 0, width: 0, run: head }],
            margin,
            margin,
            sizes.heading[0],
            exportPalette.ink,
          ),
        );
      }
      for (const [line, { block, page: number }] of this.headings.slice(at * perPage, (at + 1) * perPage).entries()) {
        const y = margin + 40 + line * contentLine;
        const indent = (block.level - 1) * 14;
        const size = sizes.body;
        const run: Run = { text: block.text, isStrong: block.level === 1, link: `#${block.anchor}` };
        const pieces = this.lines([run], inside - indent - 40, size)[0] ?? [];
        this.marked(this.under(toc, "TOCI"), "TOCI", () => {
          this.drawLine(pieces, margin + indent, y, size, exportPalette.ink);
          const words = String(number);
          this.document.fillColor(exportPalette.ink);
          this.words(words, bare, margin + inside - this.widthOf(words, bare, size), y, size);
        });
      }
    }
    toc.end();
  }

  private bookmarks(): void {
    const open: PDFKit.PDFOutline[] = [this.document.outline];
    for (const { block, page: number } of this.headings) {
      this.document.switchToPage(number - 1);
      const above = open.slice(0, block.level).at(-1) ?? this.document.outline;
      open.length = Math.min(open.length, block.level);
      open.push(above.addItem(block.text));
    }
  }

  private foot(title: string): void {
    const count = this.pages;
    for (let at = 1; at < count; at++) {
      this.document.switchToPage(at);
      const { width, height } = this.document.page;
      this.document.markContent("Artifact", { type: "Pagination" });
      this.document.fillColor(exportPalette.pencil);
      const words = `${title}   ${at + 1} / ${count}`;
      const wide = this.widthOf(words, bare, sizes.small);
      this.words(words, bare, Math.max(margin, width - margin - wide), height - 34, sizes.small);
      this.document.endMarkedContent();
    }
  }
}

const contentLine = 15;

const isReadable = (scene: Scene, scale: number) => (smallestPrint(scene, { scale }) ?? leastPrint) >= leastPrint;
