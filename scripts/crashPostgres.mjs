/** Crashes the PostgreSQL server of this run and starts it again. */
import { crashPostgres } from './postgres.mjs';

crashPostgres(process.env.CORDEL_TEST_POSTGRES_FOLDER);
