/** A made-up firm whose scripts the sites of the firth load: it asks for consent, and counts visits. */
export const TIDEMARK_HOSTS = ['count', 'consent', 'fonts', 'widgets'].map((n) => `${n}.tidemark.example`);

/** A question at the foot of the page, and a sign to all who wait for its answer. */
const ASK = `(() => {
  const ask = () => {
    const box = document.createElement("div");
    box.setAttribute("role", "dialog");
    box.setAttribute("aria-label", "Consent");
    box.style.cssText = "position:fixed;left:0;right:0;bottom:0;padding:1rem;background:#fff;border-top:1px solid #999";
    box.append("May this site count visits? ");
    for (const [words, said] of [["Accept all", true], ["Only what is needed", false]]) {
      const button = document.createElement("button");
      button.textContent = words;
      button.style.marginRight = "0.5rem";
      button.onclick = () => {
        box.remove();
        if (said) document.dispatchEvent(new Event("tidemark-consent"));
      };
      box.append(button);
    }
    document.body.append(box);
  };
  if (document.body) ask();
  else document.addEventListener("DOMContentLoaded", ask);
})();
`;

/** Counts a visit once somebody has consented; the faults of the practice net make it hasty, or count double. */
const COUNT = `(() => {
  const site = new URL(document.currentScript.src).searchParams.get("site");
  const count = () => {
    for (let n = 0; n < (window.tidemarkTwice ? 2 : 1); n++)
      navigator.sendBeacon("https://count.tidemark.example/hit?site=" + site + "&event=page_view&n=" + n);
  };
  if (window.tidemarkEarly) count();
  else document.addEventListener("tidemark-consent", count);
})();
`;

const SCRIPTS: Record<string, string> = {
  '/ask.js': ASK,
  '/c.js': COUNT,
  '/f.js': '/* letters */\n',
  '/clock.js': '/* what time it is */\n',
};

/** What the firm’s servers answer. */
export function tidemark(path: string): { status: number; headers: Record<string, string>; body: string } {
  const body = SCRIPTS[path];
  if (body === undefined) return { status: 204, headers: {}, body: '' };
  const headers = { 'content-type': 'text/javascript', 'cache-control': 'public, max-age=3600' };
  return { status: 200, headers, body };
}
