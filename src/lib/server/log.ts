import { pino, type Logger } from 'pino';

let logger: Logger = pino({ level: 'info' });

/** Sets the level once the configuration is read. */
export function setLogLevel(level: string): void {
  logger = pino({ level });
}

export const log = (): Logger => logger;
