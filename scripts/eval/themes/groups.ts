// Families of the demo library by how they look, so that a judgement can name many at once. Written by eye, before themes were built.
const GROUPS: Record<string, string> = {
  blackletter: "UnifrakturCook, UnifrakturMaguntia, Grenze Gotisch, Pirata One",
  uncial: "Uncial Antiqua, MedievalSharp",
  formalScript:
    "Alex Brush, Allura, Great Vibes, Italianno, Monsieur La Doulaise, Mr De Haviland, Parisienne, Pinyon Script, Sacramento, Tangerine",
  brushScript: "Cookie, Courgette, Dancing Script, Kaushan Script, Lobster, Pacifico, Satisfy, Yellowtail",
  hand: "Architects Daughter, Caveat, Cedarville Cursive, Covered By Your Grace, Gloria Hallelujah, Homemade Apple, Kalam, Patrick Hand, Reenie Beanie, Shadows Into Light, Shantell Sans",
  marker: "Permanent Marker, Rock Salt, Covered By Your Grace, Gloria Hallelujah, Kalam",
  chalk: "Cabin Sketch, Fredericka the Great, Londrina Outline, Amatic SC, Gloria Hallelujah, Rock Salt",
  fatRound: "Chewy, Fredoka, Luckiest Guy, Titan One, Bangers",
  roundSans: "Varela Round, Nunito, Comfortaa, Fredoka",
  comic: "Bangers, Luckiest Guy, Chewy, Titan One, Londrina Solid, Patrick Hand, Shantell Sans, Gloria Hallelujah",
  tallHeavy:
    "Anton, Big Shoulders Display, Oswald, Teko, Staatliches, Barlow Condensed, Archivo Narrow, Londrina Solid, Unica One",
  wide: "Audiowide, Krona One, Syncopate, Unbounded, Syne, Tektur, Wallpoet, Rubik Mono One, Climate Crisis",
  futuristic:
    "Audiowide, Krona One, Syncopate, Unbounded, Tektur, Exo 2, Wallpoet, Space Grotesk, Space Mono, Sora, Titillium Web, Federo, Righteous, Unica One, Doto, Monofett",
  pixel: "Press Start 2P, VT323, Pixelify Sans, Silkscreen, Handjet, Doto",
  mono: "IBM Plex Mono, Victor Mono, Sometype Mono, Space Mono, Courier Prime, VT323, Recursive, Recursive Sans Linear, Monofett, Rubik Mono One, Doto",
  typewriter: "Special Elite, Courier Prime",
  slab: "Alfa Slab One, Aleo, Arvo, Hepta Slab, Rokkitt, Zilla Slab, Bitter",
  western: "Rye, Sancreek, Ewert",
  didone:
    "Bodoni Moda, Playfair Display, Abril Fatface, Rozha One, Gloock, DM Serif Display, GFS Didot, Old Standard TT, Kalnia, Imbue",
  lightDidone:
    "Bodoni Moda, Playfair Display, GFS Didot, Old Standard TT, Imbue, Instrument Serif, Italiana, Cormorant",
  oldStyle:
    "Alegreya, Cormorant, Cardo, Crimson Pro, IM Fell English, Sorts Mill Goudy, Vollkorn, Spectral, Gelasio, Libre Baskerville, Lora, Merriweather, Literata, Young Serif, Fraunces, Inknut Antiqua",
  textSerif:
    "Alegreya, Cardo, Crimson Pro, Sorts Mill Goudy, Vollkorn, Spectral, Gelasio, Libre Baskerville, Lora, Merriweather, Literata, Old Standard TT, IBM Plex Serif, Playfair Display, Bitter, Aleo, Zilla Slab",
  inscription: "Cinzel, Cinzel Decorative, Marcellus, Tenor Sans, Italiana, Philosopher, Federo",
  deco: "Poiret One, Limelight, Federo, Josefin Sans, Italiana, Fascinate, Monoton, Righteous, Unica One, Syncopate, Tenor Sans, Bungee Inline",
  plainSans:
    "Work Sans, DM Sans, Karla, Manrope, Libre Franklin, IBM Plex Sans, Archivo, Barlow, Rubik, Sora, Urbanist, Outfit, Lexend, Atkinson Hyperlegible, Commissioner, Encode Sans, Titillium Web, Roboto Flex, Space Grotesk, Familjen Grotesk, Bricolage Grotesque, Alegreya Sans, Nunito, Exo 2, Archivo Narrow, Pathway Extreme",
  geometric: "Outfit, Urbanist, Josefin Sans, Comfortaa, Poiret One, Lexend, Sora, Varela Round, DM Sans, Manrope",
  horror:
    "Nosifer, Creepster, Metal Mania, UnifrakturCook, Pirata One, MedievalSharp, Rock Salt, Grenze Gotisch, UnifrakturMaguntia",
  stencil: "Allerta Stencil, Stardos Stencil, Wallpoet",
  lightSign: "Monoton, Tilt Neon, Bungee Inline, Bungee Shade, Londrina Outline, Monofett, Fascinate, Limelight",
  poster:
    "Anton, Alfa Slab One, Abril Fatface, Titan One, Bungee, Bungee Shade, Bungee Inline, Staatliches, Big Shoulders Display, Bangers, Luckiest Guy, Rozha One, Ewert, Sancreek, Rye, Limelight, Londrina Solid, Climate Crisis, Rubik Mono One, Fascinate, Unbounded",
  woodtype: "Rye, Sancreek, Ewert, Alfa Slab One, Abril Fatface, Bungee Shade, Rozha One, Londrina Solid, Anton",
  worn: "Special Elite, Rock Salt, Cabin Sketch, Fredericka the Great, IM Fell English, Metal Mania, Nosifer, Londrina Solid, Permanent Marker, Amatic SC",
  fast: "Faster One, Audiowide, Exo 2, Kaushan Script, Yellowtail, Bangers, Teko, Anton, Tektur, Righteous",
};

/** @param list - families and `*groups`, separated by commas. */
export const familiesOf = (list: string): Set<string> =>
  new Set(
    list
      .split(",")
      .map((s) => s.trim())
      .flatMap((s) => (s.startsWith("*") ? GROUPS[s.slice(1)]!.split(", ") : [s])),
  );
