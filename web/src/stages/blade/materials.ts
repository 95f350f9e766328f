/** What grips are made of, by class. */
export const gripMaterials = [
  "hardwood",
  "denseWood",
  "stabilisedWood",
  "barkOrCork",
  "leather",
  "cord",
  "horn",
  "boneOrAntler",
  "laminate",
  "glassLaminate",
];
