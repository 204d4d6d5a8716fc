// Stands for `@jest/globals` where tests run without a context of their own.
export const { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, jest, test } = globalThis;
