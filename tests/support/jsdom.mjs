import { TestEnvironment } from "jest-environment-jsdom";

/** jsdom with what it lacks of a browser and our components ask for. */
export default class extends TestEnvironment {
  async setup() {
    await super.setup();
    const { global } = this;
    Object.assign(global, { TextEncoder, TextDecoder, structuredClone, fetch, Response, Request, Headers });
    global.ResizeObserver = class {
      observe() {}
      unobserve() {}
      disconnect() {}
    };
    global.matchMedia = () => ({ matches: false, addEventListener() {}, removeEventListener() {} });
    global.Element.prototype.scrollIntoView = function scrollIntoView() {};
    global.Element.prototype.hasPointerCapture = () => false;
    global.Element.prototype.setPointerCapture = () => {};
    global.Element.prototype.releasePointerCapture = () => {};
    global.IS_REACT_ACT_ENVIRONMENT = true;
  }
}
