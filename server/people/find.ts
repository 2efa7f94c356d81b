/** Finding people. */
import type { Transaction } from 'sequelize';
import { User } from './models';

/** Somebody who is or was of the team. */
export const findPerson = (id: number): Promise<User | null> => User.findByPk(id);

/** Somebody who is of the team. */
export const findMember = (id: number, transaction?: Transaction): Promise<User | null> =>
  User.findOne({ where: { id, removedAt: null }, transaction });

/** The names of people who are or were of the team. */
export const peopleByIds = (ids: readonly number[]): Promise<User[]> =>
  User.findAll({ where: { id: [...ids] }, attributes: ['id', 'name'] });

/** The names of everybody who is or was of the team. */
export const everybody = (): Promise<User[]> => User.findAll({ attributes: ['id', 'name'] });
