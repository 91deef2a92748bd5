import { useEffect, useState } from "react";

type Theme = "day" | "night";
const stored = () => localStorage.getItem("theme") as Theme | null;
const preferred = (): Theme => (matchMedia("(prefers-color-scheme: dark)").matches ? "night" : "day");

export function applyTheme(theme: Theme = stored() ?? preferred()) {
  document.documentElement.dataset.theme = theme;
}

export function useTheme(): [Theme, () => void] {
  const [theme, setTheme] = useState<Theme>(() => stored() ?? preferred());
  useEffect(() => applyTheme(theme), [theme]);
  return [
    theme,
    () => {
      const next = theme === "day" ? "night" : "day";
      localStorage.setItem("theme", next);
      setTheme(next);
    },
  ];
}
