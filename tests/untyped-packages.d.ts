/** Packages of the tests that come without types. */
declare module 'har-schema' {
  const schemas: Record<string, Record<string, unknown>>;
  export default schemas;
}
declare module 'spf-parse' {
  export default function parse(record: string): {
    valid: boolean;
    mechanisms?: { type: string; prefix: string; value?: string }[];
    messages?: { message: string; type: string }[];
  };
}
declare module 'dmarc-parse' {
  export default function parse(record: string): {
    tags: Record<string, { value: string; description: string }>;
    messages: string[];
  };
}
declare module 'whatwg-url' {
  export const URL: typeof globalThis.URL;
}
declare module 'psl' {
  const psl: { get(host: string): string | null };
  export default psl;
}
