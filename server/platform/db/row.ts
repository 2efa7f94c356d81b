/** What the models of all subjects are made of. */
import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelAttributes,
} from 'sequelize';
import { database } from './connection';

export abstract class Row<T extends Model> extends Model<InferAttributes<T>, InferCreationAttributes<T>> {}

/** A number that the database gives. */
export const id = { type: DataTypes.INTEGER.UNSIGNED, autoIncrement: true, primaryKey: true } as const;
/** The number of another row, or a count. */
export const ref = DataTypes.INTEGER.UNSIGNED;
export const text = (length: number) => DataTypes.STRING(length);
/** A moment, to the millisecond, UTC. */
export const when = DataTypes.DATE(3);
/** A date without a time. */
export const day = DataTypes.DATEONLY;
export const flag = DataTypes.BOOLEAN;
export const percent = DataTypes.TINYINT.UNSIGNED;
export const whole = DataTypes.INTEGER;
export const amount = DataTypes.DOUBLE;
export const bytes = DataTypes.BLOB('long');

/** A MEDIUMTEXT column. */
export const longText = DataTypes.TEXT('medium');

/** A MEDIUMTEXT column that holds JSON. */
export function json(field: string) {
  return {
    type: DataTypes.TEXT('medium'),
    get(this: Model) {
      const v = this.getDataValue(field as never) as unknown;
      return typeof v === 'string' ? (JSON.parse(v) as unknown) : v;
    },
    set(this: Model, v: unknown) {
      this.setDataValue(field as never, (v === null || v === undefined ? null : JSON.stringify(v)) as never);
    },
  };
}

/** Binds a model to its table. */
export function bind(
  model: { init: (attributes: never, options: never) => unknown },
  tableName: string,
  attributes: Record<string, unknown>,
): void {
  model.init(attributes as ModelAttributes as never, { sequelize: database(), tableName } as never);
}
