/** The connection to MariaDB, from the environment. */
import * as mariadb from 'mariadb';
import { Sequelize } from 'sequelize';

let instance: Sequelize | undefined;

/**
 * One pool per process. Settings: ARMBAND_DB_HOST, _PORT, _NAME, _USER, _PASSWORD. All times are UTC, SQL
 * mode is strict.
 */
export function database(): Sequelize {
  return (instance ??= new Sequelize(
    process.env.ARMBAND_DB_NAME ?? 'armband',
    process.env.ARMBAND_DB_USER ?? 'armband',
    process.env.ARMBAND_DB_PASSWORD ?? '',
    {
      dialect: 'mariadb',
      dialectModule: mariadb,
      host: process.env.ARMBAND_DB_HOST ?? '127.0.0.1',
      port: Number(process.env.ARMBAND_DB_PORT ?? 3306),
      timezone: '+00:00',
      logging: false,
      pool: { max: 16, idle: 30_000, acquire: 15_000 },
      define: { underscored: true, timestamps: false, freezeTableName: true, charset: 'utf8mb4' },
      dialectOptions: {
        connectTimeout: 5000,
        // no query may hold a connection for ever; the longest are those of a large roster
        queryTimeout: 60_000,
        socketTimeout: 90_000,
        initSql: [
          "SET SESSION sql_mode = 'STRICT_ALL_TABLES,NO_ZERO_DATE,NO_ZERO_IN_DATE,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION'",
          // once for all transactions: said with each, it would be a statement more for each
          'SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED',
        ],
      },
    },
  ));
}

const HEALTH_MS = 3000;

/** Whether the database answers a question now. */
export async function databaseAnswers(): Promise<boolean> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<boolean>((resolve) => {
    timer = setTimeout(() => resolve(false), HEALTH_MS);
  });
  const asked = database()
    .authenticate()
    .then(
      () => true,
      () => false,
    );
  return Promise.race([asked, late]).finally(() => clearTimeout(timer));
}

/** Ends the pool; for tests and an orderly stop. */
export async function closeDatabase(): Promise<void> {
  await instance?.close();
  instance = undefined;
}
