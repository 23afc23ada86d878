import { chromium } from "playwright-core";
const b=await chromium.launch({executablePath:"/usr/bin/chromium",args:["--no-sandbox","--disable-gpu","--disable-quic","--no-first-run"]});
const p=await b.newPage({viewport:{width:1280,height:800}});
const base="http://localhost:4311";
p.on("pageerror",e=>console.log("ERR",e.message)); p.on("console",m=>m.type()==="error"&&console.log("CON",m.text()));
const shot=async(n)=>p.screenshot({path:`/tmp/shot-${n}.png`});
await p.goto(base+"/v/solar-connection-as-is/walk");await p.waitForTimeout(2500);
for(let i=0;i<4;i++){await p.keyboard.press("ArrowRight");await p.waitForTimeout(400)}
await p.getByRole("button",{name:"What the marks mean"}).click();await p.waitForTimeout(500);
await shot("walk");
await p.goto(base+"/v/solar-connection-as-is/diagram");await p.waitForTimeout(2500);
await p.keyboard.press("Control+k");await p.keyboard.type("hand-overs on the diagram");await p.waitForTimeout(400);await p.keyboard.press("Enter");await p.waitForTimeout(800);
await p.getByRole("button",{name:"What the marks mean"}).click();await p.waitForTimeout(500);
await shot("diagram");
await p.goto(base+"/v/solar-connection-to-be/compare");await p.waitForTimeout(3500);
await shot("compare");
await b.close();
