// What a component test waits for comes at once; on a machine of which others take three quarters it may take
// longer than the library's second.
import { configure } from "@testing-library/react";

configure({ asyncUtilTimeout: 60_000 });
