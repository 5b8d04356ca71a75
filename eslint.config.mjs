import next from "eslint-config-next/core-web-vitals";
import nextTypeScript from "eslint-config-next/typescript";

const bitwise = { "no-bitwise": "error" };
const lines = (max) => ({ "max-lines": ["error", { max, skipBlankLines: true, skipComments: true }] });
const functions = (max) => ({
  "max-lines-per-function": ["error", { max, skipBlankLines: true, skipComments: true, IIFEs: true }],
});

const config = [
  {
    ignores: [
      "public/**",
      ".next/**",
      "node_modules/**",
      ".data/**",
      ".cache/**",
      "next-env.d.ts",
      "test-results/**",
      "playwright-report/**",
      // Made from the schemas, and compared with them by a test.
      "src/core/plan/schema/stored.generated.ts",
    ],
  },
  ...next,
  ...nextTypeScript,
  {
    files: ["**/*.{ts,tsx,mts,mjs}"],
    rules: {
      ...lines(350),
      // Prettier keeps to 110; what it leaves alone is held to 112.
      "max-len": ["error", 112],
      ...functions(60),
      "max-params": ["error", 4],
      // A switch over the kinds of a thing is one decision, however many kinds there are.
      complexity: ["error", { max: 15, variant: "modified" }],
      "no-nested-ternary": "error",
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-non-null-assertion": "error",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "no-warning-comments": ["error", { terms: ["todo", "fixme"] }],
      eqeqeq: "error",
    },
  },
  {
    files: ["src/core/**/*.ts"],
    rules: {
      ...bitwise,
      // Functions of the core that happen to begin with "use" are no hooks: there is no React here.
      "react-hooks/rules-of-hooks": "off",
      "@typescript-eslint/no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              regex:
                "^(node:|(fs|path|os|crypto|child_process|net|http|https|stream|util|worker_threads" +
                "|buffer|url)(/|$))",
            },
            { regex: "^(react|react-dom|next|server-only|client-only)(/|$)" },
            { regex: "^@/(?!core/)" },
          ],
        },
      ],
      "no-restricted-globals": ["error", "window", "document", "process", "Buffer", "fetch", "localStorage"],
      "no-restricted-properties": [
        "error",
        { object: "Date", property: "now", message: "The clock is passed in." },
        { object: "Math", property: "random", message: "Randomness is passed in." },
        { property: "localeCompare", message: "Order by code point (kernel/order)." },
      ],
    },
  },
  {
    files: ["src/core/**/*.ts"],
    ignores: ["src/core/kernel/**", "src/core/**/*.test.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        { selector: "ThrowStatement", message: "Expected failure is a value; bugs go through kernel/must." },
      ],
    },
  },
  {
    files: ["src/core/address/bits.ts", "src/core/kernel/md5.ts", "src/core/heard/traffic.ts"],
    rules: { "no-bitwise": "off" },
  },
  // Sets of classes as bits: that is what makes lists of thousands of rules a matter of a moment.
  {
    files: ["src/core/rules/{allowed,classes,covers,equivalence,fates,pairs}.ts"],
    rules: { "no-bitwise": "off" },
  },
  {
    files: ["src/core/**/*.test.ts"],
    rules: { "@typescript-eslint/no-restricted-imports": "off", "no-bitwise": "off" },
  },
  // A view says what is on the screen, which is long and not deep.
  { files: ["src/ui/**/*.tsx", "src/app/**/*.tsx"], rules: functions(90) },
  // The demo sites are data, told from top to bottom; a test is read with what it prepares.
  {
    files: ["tests/**", "bench/**", "demo/**", "**/*.test.{ts,tsx}"],
    rules: { ...lines(450), "max-lines-per-function": "off" },
  },
  // The font's files are named as their package names them.
  { files: ["src/app/layout.tsx"], rules: { "max-len": "off" } },
];

export default config;
