import next from "eslint-config-next/core-web-vitals";
import nextTypeScript from "eslint-config-next/typescript";

const bitwise = { "no-bitwise": "error" };
const length = { "max-lines": ["error", { max: 750, skipBlankLines: true, skipComments: true }] };

const config = [
  {
    ignores: [
      ".next/**",
      "node_modules/**",
      ".data/**",
      ".cache/**",
      "next-env.d.ts",
      "test-results/**",
      "playwright-report/**",
    ],
  },
  ...next,
  ...nextTypeScript,
  {
    files: ["**/*.{ts,tsx,mts,mjs}"],
    rules: {
      ...length,
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
                "^(node:|(fs|path|os|crypto|child_process|net|http|https|stream|util|worker_threads|buffer|url)(/|$))",
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
  { files: ["src/core/address/bits.ts", "src/core/kernel/bit-set.ts"], rules: { "no-bitwise": "off" } },
  {
    files: ["src/core/**/*.test.ts"],
    rules: { "@typescript-eslint/no-restricted-imports": "off", "no-bitwise": "off" },
  },
  {
    files: ["tests/**", "bench/**", "demo/**", "**/*.test.{ts,tsx}"],
    rules: { "max-lines": ["error", { max: 1100 }] },
  },
];

export default config;
