/**
 * Which language a text is in, told by its most frequent small words. It says so only where one language is far ahead of
 * all others; kindred ones are not told apart. Word lists from memory; common practice.
 */

/** Small words of each language, by its primary subtag (BCP 47). Words that many languages share are left out. */
const WORDS: Record<string, string> = {
  en: 'the of and to is that for with are was this which have from not be has their they will you your or by an',
  de: 'der die und das den von zu mit ist nicht auf für ein eine dem sich des im auch werden wird oder sind bei aus nach wir ihr sie',
  fr: 'le la les et des du une est dans pour que qui sur par au avec pas ce cette sont vous nous aux ou plus leur ses',
  es: 'el la los las y de en que del para con por una su al es se lo como más o este esta son sus nuestro usted todo toda',
  it: 'il lo gli di che è per della del con una non sono nel alla si dei le da ogni ed o delle più questo nella ha al',
  pt: 'o os as do da dos das e em que para com uma não por ao um seu sua à se mais ou são no na todo toda pelo é tem',
  nl: 'de het een en van in is op te dat voor met zijn niet aan er om ook als bij wordt of naar door uit wij worden deze ieder heeft',
  sv: 'och att det som en på är av för med den till inte om ett har de kan vi eller från sin var skall rätt sina',
  da: 'og at det som en på er af for med den til ikke et har de kan vi eller fra der sin ved skal om hans ret enhver',
  nb: 'og å det som en på er av for med den til ikke et har de kan vi eller fra sin ved skal om hans rett enhver noen',
  fi: 'ja on ei että se hän ovat joka tai kuin mutta sekä voi olla jos hänen heidän kun myös oikeus jokaisella tämän niiden',
  pl: 'i w na z do się nie jest to że o jak po od przez dla oraz ma lub być są jego może czy który prawo ich które',
  cs: 'a v na se je že s z do o to jako po od za pro který nebo být jeho má by kde jsou každý při ve mít právo',
  hu: 'a az és hogy nem is egy van meg vagy de mint ha minden csak kell már ezt aki való amely személynek joga bármely',
  ro: 'și de la în a să nu este cu pe care din o un pentru că sau mai au fie orice ale prin sunt dreptul persoană',
  tr: 've bir bu için ile de da olarak olan her veya gibi daha çok ne en kadar hakkı var bütün hiç kimse onun',
  el: 'και το του η την να της με των που από για στην τα ο οι στο δεν είναι θα ή τις σε κάθε',
  ru: 'и в не на что с по как он к за это из у для от его а или быть каждый право имеет при их на',
  uk: 'і в не на що з та до як за це у для від його а або бути кожна право має при їх є людина',
};
/** Languages that write each other's small words: what is said to be one may be the other. */
const KINDRED = [
  ['da', 'nb', 'nn', 'no', 'sv'],
  [
    'es',
    'pt',
    'it',
    'gl',
    'ca',
    'ast',
    'oc',
    'an',
    'mwl',
    'co',
    'sc',
    'rm',
    'fur',
    'lld',
    'scn',
    'nap',
    'vec',
    'lmo',
    'pms',
    'lij',
    'ext',
    'lad',
  ],
  ['fr', 'ca', 'oc', 'wa', 'frp', 'br', 'ht', 'co', 'rm'],
  ['en', 'sco', 'ang'],
  ['de', 'nds', 'gsw', 'lb', 'bar', 'fy', 'yi', 'rm', 'hsb', 'dsb'],
  ['nl', 'af', 'fy', 'li', 'nds', 'vls', 'zea'],
  ['cs', 'sk', 'pl', 'hsb', 'dsb', 'szl', 'csb', 'sl', 'hr', 'sr', 'bs', 'sh', 'cnr'],
  ['ru', 'uk', 'be', 'bg', 'mk', 'sr', 'rue', 'cu'],
  ['fi', 'et', 'krl', 'vep', 'fkv'],
  ['tr', 'az', 'gag', 'crh', 'tk'],
  ['ro', 'mo', 'rup'],
];
const KINDRED_OF = new Map<string, ReadonlySet<string>>();
for (const group of KINDRED)
  for (const language of group)
    KINDRED_OF.set(language, new Set([...(KINDRED_OF.get(language) ?? []), ...group]));

const LANGUAGES = Object.keys(WORDS);
/** The words of each of them; single letters of ASCII stand in too many. */
const OWN_WORDS = LANGUAGES.map(
  (language) => new Set(WORDS[language]!.split(' ').filter((word) => !/^[a-z]$/.test(word))),
);
/** The languages of each word, by their place in the list. */
const BY_WORD = new Map<string, number[]>();
OWN_WORDS.forEach((words, i) => {
  for (const word of words) BY_WORD.set(word, [...(BY_WORD.get(word) ?? []), i]);
});

const LONGEST = 4000;
/** So much is looked at first: most pages are in the language that they say. */
const BEGINNING = 400;
/** So many of its words are its own where a text is in the language that is said. */
const OWN_SHARE = 0.2;
/** Fewer words tell nothing. */
const LEAST_WORDS = 60;
/** In running text every third or fourth word is one of them; half of that is taken for proof. */
const LEAST_SHARE = 0.15;
/** Where nothing is known of the words of the language that is said. */
const CERTAIN_SHARE = 0.22;
/** The language that a text claims has hardly any of its words, against the one that it is in. */
const FAR_BEHIND = 0.35;
const WORD = /[\p{L}\p{M}]+/gu;

/** Whether the beginning of a text has enough of a language's words. */
function isPlainly(text: string, own: number): boolean {
  // without those that a comma or stop follows: quicker, and enough
  const words = text.slice(0, BEGINNING).toLowerCase().split(' ');
  const known = OWN_WORDS[own];
  if (!known) return false;
  let hits = 0;
  for (const word of words) if (known.has(word)) hits++;
  return hits > 0 && hits >= OWN_SHARE * words.length;
}

/**
 * The language that a text is in, where that is certainly another one than is said.
 * @param text visible text
 * @param said primary subtag, in small letters
 * @returns its primary subtag; undefined where the text is too short, fits what is said, or cannot be told
 */
export function otherLanguageOf(text: string, said: string): string | undefined {
  if (isPlainly(text, LANGUAGES.indexOf(said))) return undefined;
  const words = text.slice(0, LONGEST).toLowerCase().match(WORD) ?? [];
  if (words.length < LEAST_WORDS) return undefined;
  const hits = new Array<number>(LANGUAGES.length).fill(0);
  for (const word of words) for (const i of BY_WORD.get(word) ?? []) hits[i]!++;
  const best = hits.indexOf(Math.max(...hits));
  const language = LANGUAGES[best]!;
  if (hits[best]! < LEAST_SHARE * words.length) return undefined;
  if (language === said || KINDRED_OF.get(language)?.has(said)) return undefined;
  const own = LANGUAGES.indexOf(said);
  const share = hits[best]! / words.length;
  // a language that is not in the list cannot be weighed
  const isCertain = own < 0 ? share >= CERTAIN_SHARE : hits[own]! <= FAR_BEHIND * hits[best]!;
  return isCertain ? language : undefined;
}
