/**
 * What a hosting product imposes or leaves behind, as the agency's own notes. All fields are optional: a
 * profile only sharpens checks.
 */
export interface HostProfile {
  name: string;
  notes?: string;
  icons?: { required?: number[]; recommended?: number[]; touch?: number };
  descriptionLimit?: number;
  sharePictureBytes?: number;
  records?: { name: string; type: string; value: string; ttl?: number }[];
  /** Addresses it answers from, as CIDR ranges, where they vary from day to day. */
  addressRanges?: string[];
  issuer?: string;
  sharedSuffixes?: string[];
  /** Texts that give away a page of a certain kind, matched in the page's text or title, case folded. */
  marks?: {
    parking?: string[];
    unknownName?: string[];
    holding?: string[];
    samplePage?: string[];
    signIn?: string[];
    postList?: string[];
  };
  defaults?: {
    titles?: string[];
    taglines?: string[];
    texts?: string[];
    authors?: string[];
    formSenders?: string[];
    iconHashes?: string[];
  };
  badge?: string[];
  stagingHostPattern?: string;
  stagingLifetime?: { firstDays: number; renewalDays?: number; capDays?: number };
  plans?: { name: string; features: string[] }[];
  backups?: string;
  /** Manual checks that sites there need, whatever the checklist says. */
  handChecks?: string[];
}
