/** The oven's choices in words. */
import type { Schemas } from "../../api/client";

export const ENDS = [
  { value: "pale", label: "Pale and set" },
  { value: "just_golden", label: "Just golden" },
  { value: "golden", label: "Golden" },
  { value: "brown", label: "Brown" },
  { value: "dull", label: "Middle loses its shine" },
  { value: "soft_pale", label: "Pale, soft middle" },
] as const;

export const LINERS = [
  { value: "parchment", label: "Parchment" },
  { value: "bare", label: "Bare tray" },
  { value: "greased", label: "Greased tray" },
  { value: "foil", label: "Foil" },
  { value: "silicone", label: "Silicone mat" },
  { value: "floured", label: "Greased and floured" },
] as const;

export const TRAYS = [
  { value: "aluminium", label: "Aluminum" },
  { value: "steel", label: "Steel" },
] as const;

/** Every end, also those that only a lever sets. */
export const END_WORDS: Record<Schemas["BakeEnd"], string> = {
  pale: "pale and set",
  just_golden: "just golden",
  golden: "golden",
  brown: "brown",
  dull: "the middle loses its shine",
  soft_pale: "pale with a soft middle",
  soft_just_golden: "just golden, a soft middle",
  soft_golden: "golden, a soft middle",
  soft_brown: "brown, a soft middle",
};

export const LINER_WORDS: Record<Schemas["TrayLiner"], string> = {
  parchment: "parchment",
  bare: "bare tray",
  greased: "greased tray",
  foil: "foil",
  silicone: "silicone mat",
  floured: "greased and floured",
};

export const TRAY_WORDS: Record<Schemas["TrayKind"], string> = {
  aluminium: "aluminum tray",
  steel: "steel tray",
};
