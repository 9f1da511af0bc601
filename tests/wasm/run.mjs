// node run.mjs PROGRAM.wasm: runs a program of the wasm preset, what it prints goes to standard output. The few
// functions of the system interface (WASI) that a program without files, clock and arguments asks for.
import { readFileSync, writeSync } from "node:fs";

class Exit extends Error {
  constructor(code) {
    super(`exit ${code}`);
    this.code = code;
  }
}

const bytes = readFileSync(process.argv[2]);
let memory;
const view = () => new DataView(memory.buffer);
const badFile = 8; // what WASI calls EBADF

const wasi = {
  fd_write(fd, list, count, written) {
    let sum = 0;
    for (let i = 0; i < count; ++i) {
      const at = view().getUint32(list + 8 * i, true);
      const size = view().getUint32(list + 8 * i + 4, true);
      for (let done = 0; done < size; ) done += writeSync(fd, new Uint8Array(memory.buffer, at + done, size - done));
      sum += size;
    }
    view().setUint32(written, sum, true);
    return 0;
  },
  fd_read: () => badFile,
  fd_seek: () => badFile,
  fd_close: () => 0,
  environ_sizes_get: (count, size) => none(count, size),
  environ_get: () => 0,
  args_sizes_get: (count, size) => none(count, size),
  args_get: () => 0,
  proc_exit(code) {
    throw new Exit(code);
  },
};

function none(count, size) {
  view().setUint32(count, 0, true);
  view().setUint32(size, 0, true);
  return 0;
}

const module = await WebAssembly.compile(bytes);
const imports = {};
for (const { module: from, name } of WebAssembly.Module.imports(module)) {
  imports[from] ??= {};
  imports[from][name] =
    wasi[name] ??
    (name === "emscripten_notify_memory_growth"
      ? () => {}
      : () => {
          throw new Error(`the program asks for ${from}.${name}, which is not given`);
        });
}
const { exports } = await WebAssembly.instantiate(module, imports);
memory = exports.memory;
try {
  exports._start();
} catch (error) {
  if (!(error instanceof Exit)) throw error;
  process.exitCode = error.code;
}
