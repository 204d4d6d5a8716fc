// npm run backup -- <file.zip>: the whole data folder (FOND_QUARRY_DATA or ./data) in one file, while the server runs.
import { backUp } from "../src/server/db/backup";
import { dataFolder } from "../src/server/db/folder";

const file = process.argv[2] ?? `fond-quarry-${new Date().toISOString().slice(0, 10)}.zip`;
const count = await backUp(dataFolder(), file);
console.log(`${file}: the database and ${count} files.`);
