import type { CreationOptional } from 'sequelize';
import type { HostProfile } from '#core/facts/host-profile';
import { defineModels } from '#server/platform/db/models';
import { bind, id, json, ref, Row, text, when } from '#server/platform/db/row';

/** A host profile, whatever it says now. */
export class HostProfileRow extends Row<HostProfileRow> {
  declare id: CreationOptional<number>;
  declare name: string;
}

/** What a host profile said from one save to the next. */
export class HostProfileVersion extends Row<HostProfileVersion> {
  declare id: CreationOptional<number>;
  declare hostProfileId: number;
  declare version: number;
  declare data: HostProfile;
  declare createdAt: Date;
  declare savedBy: CreationOptional<string>;
}

defineModels(() => {
  bind(HostProfileRow, 'host_profile', { id, name: text(200) });
  bind(HostProfileVersion, 'host_profile_version', {
    id,
    hostProfileId: ref,
    version: ref,
    data: json('data'),
    createdAt: when,
    savedBy: text(120),
  });
});
