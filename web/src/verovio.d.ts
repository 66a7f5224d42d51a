declare module "verovio/wasm" {
  export default function createModule(): Promise<unknown>;
}
declare module "verovio/esm" {
  export class VerovioToolkit {
    constructor(module: unknown);
    setOptions(options: Record<string, unknown>): void;
    loadData(data: string): boolean;
    select(selection: { measureRange?: string }): boolean;
    redoLayout(): void;
    renderToSVG(page: number): string;
  }
}
