/**
 * Pages that serve a visitor and no reader of listings: search, cart, sign-in, thanks, archives (common
 * practice).
 */
const ASIDE =
  /\/(?:search|suche|recherche|cart|basket|warenkorb|panier|checkout|kasse|log-?in|sign-?in|account|konto|thank-?you|thanks|danke|merci|tag|tags|author|archive|archives|page\/\d+|feed)(?:\/|$)|[?&](?:s|q|search|page|sort|filter|replytocom)=/i;

export function isAside(url: string): boolean {
  const u = new URL(url);
  return ASIDE.test(u.pathname + u.search);
}
