import { execFileSync } from "node:child_process";

const ASK = "const s=require('net').createServer().listen(0,'127.0.0.1',()=>{process.stdout.write(String(s.address().port));s.close()})";

/** A port that nobody listens on: whatever else runs on this machine is left alone. */
export const freePort = () => execFileSync(process.execPath, ["-e", ASK]).toString();
