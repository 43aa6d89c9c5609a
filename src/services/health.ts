import { databaseAnswers } from '../data/database';

/** Whether the app can serve: its database answers. */
export const healthy = (): Promise<boolean> => databaseAnswers();
