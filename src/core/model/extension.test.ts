import { expect, test } from "vitest";
import { isSafeLink } from ".";

test.each([
  ["https://quillmere.example/plan", true],
  ["http://quillmere.example", true],
  ["mailto:desk@quillmere.example", true],
  ["documents/plan.pdf", true],
  ["/plans/a?b#c", true],
  ["#part", true],
  ["javascript:alert(1)", false],
  [" java\nscript:alert(1)", false],
  ["data:text/html,<script>", false],
  ["file:///etc/passwd", false],
  ["vbscript:x", false],
  ["//evil.example/x", false],
  ["\\\\evil\\share", false],
])("%j may be followed: %s", (href, isSafe) => {
  expect(isSafeLink(href)).toBe(isSafe);
});
