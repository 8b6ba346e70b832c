declare module '@micropython/micropython-webassembly-pyscript/micropython.mjs' {
  export type MicroPython = {
    readonly FS: { writeFile(path: string, text: string): void };
    readonly globals: { get(name: string): unknown };
    runPython(code: string): unknown;
  };
  export function loadMicroPython(options?: { readonly heapsize?: number }): Promise<MicroPython>;
}
