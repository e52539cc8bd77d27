// Asks the core of a package what stands in the lines of standard input, each {what, body}, and writes an answer a line.
const fs = require('node:fs');
const vm = require('node:vm');
const zlib = require('node:zlib');

const [folder, day] = process.argv.slice(2);
globalThis.self = globalThis;
for (const file of ['data.js', 'core.js']) vm.runInThisContext(fs.readFileSync(`${folder}/${file}`, 'utf8'), file);
self.sarnikCoreSource();
const bytes = zlib.gunzipSync(Buffer.from(self.sarnikData.data, 'base64'));
const trouble = self.sarnikCore.open(new Int8Array(bytes), day, self.sarnikData.spoken.tag, self.sarnikData.spoken.sentences);
if (trouble) throw new Error(trouble);
for (const line of fs.readFileSync(0, 'utf8').split('\n').filter(Boolean)) {
  const { what, body } = JSON.parse(line);
  console.log(self.sarnikCore.ask(what, JSON.stringify(body)));
}
