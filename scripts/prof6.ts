import sharp from "sharp";
import { readFileSync } from "node:fs";
import { readPicture } from "../src/core/picture/readPicture";
import { identifyPicture } from "../src/core/identify/identifyPicture";
import { indexOf, readEvalStyles } from "./eval/library";
const { styles } = await readEvalStyles("");
const lib = indexOf(styles);
const list = JSON.parse(readFileSync("/tmp/fond-quarry-eval/pictures-demo-101-400/list.json","utf8")).filter((_:unknown,i:number)=>i%5===0);
const run = async (keep: boolean) => {
  const t=[0,0]; const all:number[]=[]; let right=0; const out:unknown[]=[];
  for (const p of list) { const { data, info } = await sharp(p.file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
   const a=performance.now(); const lines=readPicture({widthPx:info.width,heightPx:info.height,rgba:new Uint8Array(data.buffer,data.byteOffset,data.length)}, p.at?{box:p.at}:{}); const b=performance.now(); const r = lines? identifyPicture(lines,p.text,lib.index,lib.load,12):null; const c=performance.now(); t[0]!+=b-a; t[1]!+=c-b; all.push(c-a); if (r?.matches[0]?.family===p.family) right++; out.push([p.family,r?.matches[0]?.family,r?.matches[0]?.score]); }
  all.sort((x,y)=>x-y); const n=list.length; console.log("n",n,"right",right,"read",(t[0]!/n).toFixed(0),"identify",(t[1]!/n).toFixed(0),"median",all[n>>1]!.toFixed(0),"p90",all[Math.floor(n*.9)]!.toFixed(0)); return out; };
if (process.argv.includes("--twice")) await run(false);
const prof = (globalThis as {__stages?: Record<string, number>}).__stages = {};
await run(true); console.log(prof);
