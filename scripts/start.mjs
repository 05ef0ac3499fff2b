// From a fresh clone to a running application.
import { prepare } from './prepare.mjs';

prepare();
const { serve } = await import('./serve.mjs');
await serve();
