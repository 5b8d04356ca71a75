// Compiles a file of the core as every other, and hands it the built-ins by name: looked up as globals of a
// test's own context they cost a hook each time, a third of the core's time. None that a test may replace (a
// clock, a timer, fetch). They stand in the file's first line, so that a failure's lines are those of the file.
import { createTransformer } from "@swc/jest";

const BUILT_INS = [
  ...["Array", "BigInt", "Boolean", "Error", "Infinity", "Intl", "JSON", "Map", "Math", "Number", "Object"],
  ...["Promise", "Proxy", "Reflect", "RegExp", "Set", "String", "Symbol", "Uint16Array", "Uint32Array"],
  ...["Uint8Array", "WeakMap", "WeakSet"],
];
const HANDED = `"use strict";const{${BUILT_INS.join()}}=globalThis;`;

const transformer = {
  createTransformer(options) {
    const swc = createTransformer(options);
    return {
      ...swc,
      getCacheKey: (...args) => `${swc.getCacheKey(...args)} ${HANDED}`,
      process(...args) {
        const made = swc.process(...args);
        return { ...made, code: HANDED + made.code };
      },
    };
  },
};

export default transformer;
