import type { CreationOptional } from 'sequelize';
import type { ReportSetup } from '#core/report/setup';
import { defineModels } from '#server/platform/db/models';
import { bind, bytes, day, id, json, ref, Row, text, when } from '#server/platform/db/row';
import type { RemarkRegion, TemplateData } from './dto';

/** How all reports of the agency begin: one row. */
export class ReportTemplate extends Row<ReportTemplate> {
  declare id: number;
  declare data: TemplateData;
  declare logo: CreationOptional<Buffer | null>;
  declare logoType: CreationOptional<string | null>;
  declare savedBy: string;
  declare savedAt: Date;
}

/** The report of a site while it is being put together. */
export class ReportDraft extends Row<ReportDraft> {
  declare siteId: number;
  declare version: number;
  declare data: ReportSetup;
  declare savedBy: string;
  declare savedAt: Date;
}

/** A report as it was published; never changed. */
export class ReportEdition extends Row<ReportEdition> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare number: number;
  declare auditId: number;
  declare byName: string;
  declare at: Date;
  /** Packed. */
  declare data: Buffer;
}

export class ShareLink extends Row<ShareLink> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare contactId: number;
  declare secretSha256: string;
  declare passphraseHash: string | null;
  declare createdBy: string;
  declare createdAt: Date;
  declare expiresAt: Date;
  declare revokedAt: CreationOptional<Date | null>;
  /** How many PDFs were made on that day. */
  declare pdfsOn: CreationOptional<string | null>;
  declare pdfs: CreationOptional<number>;
}

/** A browser that opened a share link on a day; its key is in a cookie. */
export class ShareVisit extends Row<ShareVisit> {
  declare id: CreationOptional<number>;
  declare linkId: number;
  declare keySha256: string;
  /** When it was opened last on that day. */
  declare at: Date;
  declare day: string;
}

/** An edition as PDF: it never changes, so it is made once for the agency and once for each contact. */
export class EditionPdf extends Row<EditionPdf> {
  declare editionId: number;
  /** 0 for the agency. */
  declare contactId: number;
  declare madeAt: Date;
  declare data: Buffer;
}

export type RemarkAbout = 'whole' | 'finding' | 'page';

export class Remark extends Row<Remark> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare contactId: number;
  declare editionId: number;
  declare about: RemarkAbout;
  declare checkId: string | null;
  declare page: string | null;
  declare screen: 'desktop' | 'phone' | null;
  declare region: RemarkRegion | null;
  declare text: string;
  declare at: Date;
  declare answer: CreationOptional<string | null>;
  declare answeredBy: CreationOptional<string | null>;
  declare answeredAt: CreationOptional<Date | null>;
  declare fixId: CreationOptional<number | null>;
}

/** A contact’s yes to one audit. */
export class ApprovalRow extends Row<ApprovalRow> {
  declare id: CreationOptional<number>;
  declare siteId: number;
  declare environmentId: number;
  declare auditId: number;
  declare editionId: number | null;
  declare contactId: number | null;
  declare byName: string;
  declare at: Date;
  declare note: string | null;
  /** Of the evidence as it is kept, unpacked. */
  declare evidenceSha256: string;
  /** Of the content alone. */
  declare fingerprint: string;
  declare withdrawnAt: CreationOptional<Date | null>;
  declare withdrawnBy: CreationOptional<string | null>;
  declare withdrawnReason: CreationOptional<string | null>;
  /** Of contact and audit while it stands, so that the same yes stands once. */
  declare standingKey: CreationOptional<string | null>;
}

defineModels(() => {
  bind(ReportTemplate, 'report_template', {
    id: { type: ref, primaryKey: true },
    data: json('data'),
    logo: bytes,
    logoType: text(60),
    savedBy: text(120),
    savedAt: when,
  });
  bind(ReportDraft, 'report_draft', {
    siteId: { type: ref, primaryKey: true },
    version: ref,
    data: json('data'),
    savedBy: text(120),
    savedAt: when,
  });
  bind(ReportEdition, 'report_edition', {
    id,
    siteId: ref,
    number: ref,
    auditId: ref,
    byName: text(120),
    at: when,
    data: bytes,
  });
  bind(ShareLink, 'share_link', {
    id,
    siteId: ref,
    contactId: ref,
    secretSha256: text(64),
    passphraseHash: text(255),
    createdBy: text(120),
    createdAt: when,
    expiresAt: when,
    revokedAt: when,
    pdfsOn: day,
    pdfs: ref,
  });
  bind(EditionPdf, 'edition_pdf', {
    editionId: { type: ref, primaryKey: true },
    contactId: { type: ref, primaryKey: true },
    madeAt: when,
    data: bytes,
  });
  bind(ShareVisit, 'share_visit', { id, linkId: ref, keySha256: text(64), at: when, day });
  bind(Remark, 'remark', {
    id,
    siteId: ref,
    contactId: ref,
    editionId: ref,
    about: text(8),
    checkId: text(80),
    page: text(2000),
    screen: text(8),
    region: json('region'),
    text: text(4000),
    at: when,
    answer: text(4000),
    answeredBy: text(120),
    answeredAt: when,
    fixId: ref,
  });
  bind(ApprovalRow, 'approval', {
    id,
    siteId: ref,
    environmentId: ref,
    auditId: ref,
    editionId: ref,
    contactId: ref,
    byName: text(120),
    at: when,
    note: text(2000),
    evidenceSha256: text(64),
    fingerprint: text(64),
    withdrawnAt: when,
    withdrawnBy: text(120),
    withdrawnReason: text(2000),
    standingKey: text(40),
  });
});
