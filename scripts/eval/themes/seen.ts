// Theme phrases to build by: what families fit each, judged by eye before themes were built.
export const SEEN: Record<string, string> = {
  autumn:
    "*oldStyle, *slab, *brushScript, *western, *hand, Amatic SC, Philosopher, Marcellus, Abril Fatface, *chalk, *woodtype, *uncial",
  christmas:
    "*brushScript, *formalScript, *blackletter, *uncial, *oldStyle, Cinzel Decorative, Cinzel, Limelight, *didone",
  beach:
    "*brushScript, *hand, Amatic SC, *fatRound, *roundSans, Josefin Sans, Righteous, Permanent Marker, Londrina Solid",
  bakery:
    "*brushScript, *hand, Amatic SC, *chalk, *fatRound, *roundSans, Sacramento, Parisienne, Rokkitt, Arvo, Young Serif, Fraunces, Josefin Sans",
  butcher: "*slab, *woodtype, *western, *chalk, *tallHeavy, *poster, Young Serif",
  "law firm": "*textSerif, *oldStyle, *inscription, *didone, *plainSans",
  hospital: "*plainSans, *roundSans, *geometric",
  "tattoo studio":
    "*blackletter, *brushScript, *formalScript, *western, *uncial, Metal Mania, Cinzel Decorative, Permanent Marker, Sancreek",
  kindergarten: "*fatRound, *roundSans, *hand, *comic, *chalk, Amatic SC, Patrick Hand, Shantell Sans, Comfortaa",
  pirate: "*blackletter, *uncial, *western, *worn, Creepster, Metal Mania, *horror",
  "haunted house": "*horror, *worn, *blackletter, *uncial, Cinzel Decorative, *chalk",
  "space ship": "*futuristic, *wide, *pixel, *mono, *stencil",
  racing: "*fast, *wide, *tallHeavy, *futuristic",
  "football club": "*tallHeavy, *slab, *poster, *stencil, Archivo, Barlow, Exo 2, *wide, *fast",
  wedding: "*formalScript, *brushScript, *lightDidone, *inscription, *didone, Josefin Sans, Poiret One",
  funeral: "*oldStyle, *textSerif, *inscription, *lightDidone, *formalScript, *didone",
  "jazz club": "*deco, *lightSign, *brushScript, *didone, Josefin Sans, Bungee Shade",
  techno: "*futuristic, *wide, *mono, *pixel, *stencil, Space Grotesk, Syne, *plainSans",
  punk: "*worn, *marker, *stencil, *typewriter, *blackletter, Bangers, Metal Mania, Reenie Beanie, Anton, *chalk",
  "heavy metal band": "*blackletter, *horror, *uncial, Metal Mania, *poster, Anton",
  "nineteen seventies":
    "Righteous, Pacifico, Lobster, Monoton, Chewy, Titan One, Fascinate, Bungee Shade, Bungee Inline, Cookie, *brushScript, Fraunces, Abril Fatface, *fatRound, Limelight, Climate Crisis, Young Serif, Gloock, Rozha One, Unica One, Unbounded, Syncopate",
  victorian:
    "*woodtype, *western, *oldStyle, *didone, Fredericka the Great, Cinzel Decorative, *formalScript, *blackletter, Fascinate, Limelight, Stardos Stencil",
  "ancient rome": "*inscription, *uncial, Cormorant, Cardo, IM Fell English, Sorts Mill Goudy, Spectral",
  egypt: "*inscription, *slab, *deco, *uncial, Cinzel Decorative",
  "paris café": "*formalScript, *brushScript, *deco, *lightDidone, *didone, *chalk, Josefin Sans, Amatic SC",
  "tokyo nightlife": "*lightSign, *futuristic, *pixel, *wide, *deco, Bungee, Rubik Mono One",
  "mexican fiesta": "*woodtype, *western, *poster, *fatRound, *brushScript, Fascinate, Bungee Shade, *comic, Amatic SC",
  "alpine hut": "*slab, *blackletter, *hand, *chalk, *western, *oldStyle, Amatic SC, *brushScript, *woodtype, *uncial",
  desert: "*western, *slab, *inscription, *woodtype, *worn, Philosopher, *chalk, *deco",
  jungle:
    "*comic, *fatRound, *worn, *hand, Londrina Solid, Amatic SC, *chalk, *uncial, *marker, Bungee Shade, Fascinate",
  steel: "*tallHeavy, *stencil, *wide, *slab, *plainSans, *futuristic, Anton",
  marble: "*inscription, *lightDidone, *didone, *oldStyle, Josefin Sans, Poiret One",
  wooden: "*slab, *woodtype, *western, *chalk, *worn, *hand, Amatic SC",
  silk: "*formalScript, *lightDidone, Italiana, Poiret One, Josefin Sans, *didone, Cormorant, Tenor Sans, Marcellus",
  concrete: "*tallHeavy, *stencil, *plainSans, *wide, *slab, Rubik Mono One, Climate Crisis",
  "detective novel": "*typewriter, *oldStyle, *deco, *didone, *stencil, *textSerif, *worn, *tallHeavy",
  "fairy tale":
    "*uncial, *blackletter, *formalScript, *brushScript, Cinzel Decorative, Philosopher, Amatic SC, *hand, *oldStyle, Fredericka the Great, *inscription",
  "romance novel": "*formalScript, *brushScript, *lightDidone, *didone, *oldStyle",
  "science fiction": "*futuristic, *wide, *pixel, *mono, *stencil",
  documentary: "*plainSans, *textSerif, *tallHeavy, *typewriter, *oldStyle, *slab, *mono",
  newspaper: "*textSerif, *didone, *oldStyle, *blackletter, *slab, *typewriter, *tallHeavy",
  cookbook: "*oldStyle, *textSerif, *hand, *brushScript, *slab, Amatic SC, *chalk, *didone",
  poetry: "*oldStyle, *textSerif, *lightDidone, *formalScript, *inscription, *hand, *typewriter",
  coffee:
    "*brushScript, *hand, *slab, *chalk, *typewriter, Amatic SC, *woodtype, *deco, Young Serif, Josefin Sans, *plainSans",
  "ice cream": "*fatRound, *roundSans, *brushScript, *comic, *hand, Righteous, Amatic SC, Londrina Outline",
  "craft beer": "*slab, *woodtype, *blackletter, *brushScript, *western, *chalk, *tallHeavy, *worn, *poster",
  "vegan food": "*hand, *roundSans, *brushScript, Amatic SC, *plainSans, *geometric, *chalk, Josefin Sans",
  "expensive perfume":
    "*lightDidone, *didone, *formalScript, *inscription, Poiret One, Josefin Sans, Tenor Sans, *geometric",
  "toy shop":
    "*fatRound, *roundSans, *comic, *hand, *chalk, Bungee, Bungee Shade, Pacifico, Amatic SC, Londrina Outline",
  bank: "*plainSans, *textSerif, *geometric, *slab, *didone, *oldStyle, *inscription",
  accountant: "*plainSans, *textSerif, *geometric, *slab, *oldStyle",
  gym: "*tallHeavy, *wide, *fast, *poster, *stencil, Archivo, Exo 2, *slab, *futuristic",
  yoga: "*formalScript, *brushScript, *geometric, Josefin Sans, Poiret One, *hand, *inscription, *roundSans, *lightDidone",
  "video game": "*pixel, *futuristic, *wide, *comic, *poster, *uncial, *fast, *stencil",
  robot: "*futuristic, *pixel, *mono, *wide, *stencil",
  dinosaur: "*comic, *fatRound, *poster, *worn, *tallHeavy, *marker, *slab",
  "love letter": "*formalScript, *hand, *brushScript, *typewriter, Homemade Apple",
  graffiti:
    "*marker, Permanent Marker, Rock Salt, Bangers, *brushScript, *comic, *fatRound, *stencil, Reenie Beanie, Shadows Into Light, Bungee Shade",
  school: "*hand, *chalk, *slab, *plainSans, *roundSans, Shantell Sans, Amatic SC, *comic",
  museum: "*plainSans, *geometric, *lightDidone, *inscription, *oldStyle, *didone, *textSerif",
  "railway station": "*plainSans, *slab, *tallHeavy, *deco, *stencil, *mono, *pixel",
  military: "*stencil, *tallHeavy, *slab, *typewriter, *wide, *mono, *futuristic",
  circus: "*woodtype, *western, *poster, *lightSign, *fatRound, Fascinate, *brushScript",
  winter:
    "*lightDidone, *formalScript, Poiret One, Josefin Sans, *geometric, *inscription, *hand, *brushScript, *chalk, Amatic SC",
  thunder: "*poster, *fast, *tallHeavy, Metal Mania, *comic, *worn, *wide",
  whisper: "*formalScript, *lightDidone, Poiret One, Josefin Sans, *hand, Italiana, Tangerine, Cormorant, *geometric",
  "dusty library": "*oldStyle, *textSerif, *typewriter, *blackletter, *uncial, *didone, *worn, *inscription",
  "gentle bakery": "*brushScript, *hand, *roundSans, *formalScript, *fatRound, *oldStyle, Josefin Sans, Amatic SC",
  "angry protest": "*marker, *tallHeavy, *poster, *stencil, *worn, *typewriter, *comic",
  "hand drawn serif":
    "Fredericka the Great, Amatic SC, *worn, *uncial, *western, Londrina Solid, IM Fell English, *chalk, *marker",
  "cheap motel": "*lightSign, *brushScript, *poster, Pacifico, Bungee Shade, *deco, *tallHeavy, *worn",
  "luxury watch": "*lightDidone, *inscription, *didone, *geometric, *deco, Tenor Sans, *plainSans",
  "organic soap":
    "*hand, *brushScript, *roundSans, *oldStyle, Amatic SC, *formalScript, *lightDidone, Josefin Sans, *inscription, *typewriter",
  "old map": "*oldStyle, *uncial, *blackletter, *formalScript, *inscription, *worn, *textSerif, *didone",
  "silent film": "*deco, *lightSign, *oldStyle, *didone, *inscription, *formalScript, *blackletter, *worn, *woodtype",
};
