/** Trials: the server under odd requests, hostile files and kills. Longer with TRIAL_ROUNDS. */
import base from './jest.config.js';

export default { ...base, testMatch: ['<rootDir>/server/trials/*.trial.ts'], testTimeout: 600_000 };
