import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist", "src/app/schema.d.ts"] },
  ...tseslint.configs.recommended,
  {
    files: ["src/features/**/*.{ts,tsx}"],
    rules: {
      // Rules of the job live in the core. A comparison with a figure here would be a limit or a tolerance.
      "no-restricted-syntax": [
        "error",
        {
          selector: "BinaryExpression[operator=/^[<>]=?$/][left.property.name!='length'] > Literal[raw=/^(?!(0|1)$)[0-9.]+$/]",
          message: "A limit or tolerance belongs to PatientPawl.Core: ask the API for the verdict.",
        },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name=/^(max|min)$/] > Literal[raw=/^[0-9]*\\.[0-9]+$/]",
          message: "A limit or tolerance belongs to PatientPawl.Core: ask the API for the verdict.",
        },
      ],
    },
  },
);
