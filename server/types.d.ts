declare module '#auth-utils' {
  interface User {
    id: number;
    name: string;
    email: string;
  }
}
declare module 'h3' {
  interface H3EventContext {
    person: { id: number; name: string; email: string; owner: boolean };
    /** The session that the request came with. */
    session?: string;
  }
}
export {};
