import { chromium } from "playwright-core";
const [,, ...shots] = process.argv;
const b = await chromium.launch({ executablePath: "/usr/bin/chromium" });
const size = (process.env.SIZE ?? "1280x800").split("x").map(Number);
const p = await b.newPage({ viewport: { width: size[0], height: size[1] }, colorScheme: process.env.DARK ? "dark" : "light" });
for (const s of shots) {
  const [url, name, act] = s.split("|");
  await p.goto("http://localhost:4311" + url); await p.waitForTimeout(2500);
  if (act) { await eval(`(async()=>{${act}})()`); await p.waitForTimeout(900); }
  await p.screenshot({ path: `/tmp/${name}.png` });
}
await b.close();
