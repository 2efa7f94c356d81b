declare module 'language-tags' {
  export default function tags(tag: string): { errors(): { code: number }[] };
}
