// Holds the schema that `ubbo settings --schema` prints against a validator and against the language server of a
// TOML editor: the demo's scenes and each kind's own example stand in it, broken ones do not, and the editor says where.
import { execFileSync } from "node:child_process";
import { readFileSync, readdirSync } from "node:fs";
import Ajv from "ajv";
import { parse } from "smol-toml";
import taplo from "@taplo/lsp";

const [ubbo, demo] = process.argv.slice(2);
const run = (...words) => execFileSync(ubbo, words, { encoding: "utf8" });
let failed = 0;
const expect = (holds, what) => {
  if (holds) return;
  failed += 1;
  console.error(`not so: ${what}`);
};

const schema = JSON.parse(run("settings", "--schema"));
const valid = new Ajv({ strict: false, allErrors: true }).compile(schema);
const faults = (text) => (valid(parse(text)) ? [] : valid.errors.map((one) => `${one.instancePath} ${one.message}`));

const scenes = readdirSync(demo).filter((name) => name.endsWith(".scene.toml"));
expect(scenes.length >= 9, "the demo has its scenes");
const texts = new Map(scenes.map((name) => [name, readFileSync(`${demo}/${name}`, "utf8")]));
const kinds = JSON.parse(run("parts", "--json")).map((kind) => kind.name);
for (const kind of kinds) texts.set(kind, run("parts", kind, "--scene"));
for (const [name, text] of texts) expect(faults(text).length === 0, `${name} is taken: ${faults(text).slice(0, 3).join("; ")}`);

const list = texts.get("hive-list.scene.toml");
const broken = [
  ["leading = 96", 'leading = "96"'],  // a text for a number
  ["leading = 96", "leading = -1"],  // out of range
  ['leading_rank = "main"', 'leading_rank = "mean"'],  // no choice
  ["leading_label =", "leading_lable ="],  // no key
  ['kind = "tabs"', 'kind = "tab"'],  // no kind
  ["box = [16, 20, 136, 44]", "box = [16, 20, 136]"],  // three lengths
  ["[cells]", "[cell]"],
  ['feel = "gloved"', 'feel = "glowed"'],
];
for (const [from, to] of broken) {
  expect(list.includes(from), `'${from}' stands in the hive list`);
  expect(faults(list.replace(from, to)).length > 0, `'${to}' is refused`);
}

const unknown = faults(list.replace("leading_label =", "leading_lable ="));
expect(unknown.some((one) => one.includes("allowed values")), `an unknown key is told as one: ${unknown.join("; ")}`);

// The editor: what its server says of a file that names the schema.
const environment = {
  now: () => new Date(), envVar: () => "", envVars: () => [], stdErrAtty: () => false, stdin: () => Promise.resolve(0),
  stdout: (bytes) => Promise.resolve(bytes.length), stderr: (bytes) => Promise.resolve(bytes.length), glob: () => [],
  readFile: () => Promise.resolve(new TextEncoder().encode(JSON.stringify(schema))),
  writeFile: () => Promise.reject(new Error("nothing is written")), urlToFilePath: (url) => url.slice("file://".length),
  isAbsolute: () => true, cwd: () => "/scene", findConfigFile: () => undefined,
};
const waiting = new Map();
const server = await taplo.TaploLsp.initialize(environment, {
  onMessage: (message) => {
    if (message.method === "textDocument/publishDiagnostics") waiting.get(message.params.uri)?.(message.params.diagnostics);
    // It asks for its settings; none are set.
    if (message.id !== undefined && message.method === "workspace/configuration")
      server.send({ jsonrpc: "2.0", id: message.id, result: message.params.items.map(() => ({ schema: { enabled: true } })) });
  },
});
server.send({ jsonrpc: "2.0", id: 1, method: "initialize", params: { capabilities: {}, processId: 1, rootUri: null } });
server.send({ jsonrpc: "2.0", method: "initialized", params: {} });
const asked = (name, text) =>
  new Promise((resolve) => {
    const uri = `file:///scene/${name}`;
    let latest = [];
    waiting.set(uri, (found) => { latest = found; });
    server.send({
      jsonrpc: "2.0", method: "textDocument/didOpen",
      params: { textDocument: { uri, languageId: "toml", version: 1, text: `#:schema file:///scene.schema.json\n${text}` } },
    });
    setTimeout(() => resolve(latest), 700);
  });
await asked("first.toml", "");  // the first file comes before the server has its settings
for (const name of ["hive-list.scene.toml", "hive-sheet.scene.toml"]) {
  const found = await asked(name, texts.get(name));
  expect(found.length === 0, `the editor has nothing to say of ${name}: ${JSON.stringify(found.slice(0, 2))}`);
}
for (const [at, [from, to]] of broken.entries()) {
  const text = list.replace(from, to);
  const found = await asked(`broken-${at}.toml`, text);
  const line = 1 + text.slice(0, text.indexOf(to)).split("\n").length - 1;  // below the line that names the schema
  const marks = (one) => one.range.start.line === line || (to === "[cell]" && one.range.start.line === 0);
  expect(found.some(marks), `the editor marks '${to}' in line ${line}: ${JSON.stringify(found.slice(0, 1))}`);
}
server.dispose?.();
console.log(`${texts.size} scenes taken, ${broken.length} broken ones refused, by a validator and in an editor`);
process.exit(failed === 0 ? 0 : 1);
