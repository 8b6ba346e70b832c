/** What is used of the interpreter's WebAssembly build. */
declare module '@micropython/micropython-webassembly-pyscript/micropython.mjs' {
  export type MicroPython = {
    readonly FS: {
      readonly writeFile: (path: string, data: string | Uint8Array) => void;
      readonly readFile: (path: string) => Uint8Array;
      readonly readdir: (path: string) => readonly string[];
      readonly mkdir: (path: string) => void;
      readonly stat: (path: string) => { readonly mode: number };
      readonly isDir: (mode: number) => boolean;
      readonly analyzePath: (path: string) => { readonly exists: boolean };
    };
    readonly globals: { readonly get: (name: string) => unknown };
    readonly registerJsModule: (name: string, module: object) => void;
    readonly runPython: (code: string) => unknown;
    readonly replInit: () => void;
    readonly replProcessChar: (code: number) => number;
  };
  export function loadMicroPython(options?: {
    /** Bytes. */
    readonly heapsize?: number;
    /** Where the WebAssembly lies, where it is not beside the script. */
    readonly url?: string;
    /** False: what it prints comes byte by byte, unbroken. */
    readonly linebuffer?: false;
    readonly stdout?: (bytes: Uint8Array) => void;
  }): Promise<MicroPython>;
}
