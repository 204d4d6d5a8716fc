// Words of terms by what they do in a sentence: English, German, French and Spanish in full, Italian, Portuguese and Dutch
// as far as it takes not to miss a denial. A data table.
// "*" stands for any ending. Sources: our own reading of how makers write; no list was copied.

/** @param entries - alternatives; spaces match any white space. */
function words(...entries: string[]): RegExp {
  const source = entries.join("|").replace(/ /g, "\\s+").replace(/\*/g, "[\\p{L}-]*");
  return new RegExp(`(?<![\\p{L}\\p{N}])(?:${source})(?![\\p{L}\\p{N}])`, "iu");
}

/** Said of use that earns nothing: read before "commercial" is looked for. */
export const NON_COMMERCIAL = words(
  "non commerciale|não[- ]comercia(?:l|is)|niet[- ]commerci(?:eel|ële)",
  "non[- ]?commercial(?:ly)?|not[- ]for[- ]profit|nonprofit|non[- ]?profit",
  "nicht[- ]?kommerziell*|nichtgewerblich*|nicht[- ]gewerblich*|unkommerziell*|nicht[- ]?kommerz",
  "non[- ]commercia(?:l|le|les|ux)|(?:à|a) but non lucratif|sans but lucratif",
  "no[- ]comercial(?:es)?|sin (?:fines|ánimo) (?:de lucro|comerciales)|sin lucro",
);

/** Double negations and offers of freedom that carry a "no": taken out before negation is looked for. */
export const KIND_NO = words(
  "or not|oder nicht|ou non|o no",
  "without (?:having to ask|asking(?: me| us| first)?)|ohne (?:zu fragen|nachfrage|rückfrage)|sans (?:me |nous )?demander|sin (?:pedir permiso|preguntar)",
  "without (?:any )?(?:payment|charge|cost|fee)|pay nothing|included with (?:the |your )?purchase|ohne (?:bezahlung|entgelt|zahlung)|zahlen nichts|sans (?:paiement|payer)|ne paient rien|sin (?:pago|pagar)|no pagan nada",
  "costs? nothing|free of (?:charge|cost)|kostet nichts|ne coûte rien|no cuesta nada|no cobro nada",
  "no restrictions?|without (?:any )?restrictions?|no limit(?:s|ations?)?|without limit(?:s|ations?)?|no charge|no cost|no fee|no payment|no strings attached|not only|no permission (?:is )?(?:needed|required|necessary)|no need to (?:ask|pay|buy|credit|mention)|(?:is|are) not (?:required|needed|necessary)|not (?:required|needed|necessary|mandatory|obligatory)|no (?:credit|attribution|licen[cs]e) (?:is )?(?:required|needed|necessary)|no problem|no matter|do not have to|don[’']t have to|don[’']t need to|do not need to|need not|never expires",
  "keine(?:rlei)? (?:einschränkung*|beschränkung*|kosten|gebühr*|auflagen)|ohne (?:jede |jegliche )?(?:einschränkung*|beschränkung*|auflagen|gebühr*|kosten)|nicht nur|keine (?:genehmigung|erlaubnis|nennung|namensnennung|lizenz) (?:ist )?(?:nötig|erforderlich|notwendig)|nicht (?:erforderlich|nötig|notwendig|zwingend|pflicht)|kein problem|keine pflicht",
  "sans (?:aucune )?(?:restrictions?|limit*|frais|contrepartie)|non seulement|pas (?:seulement|obligatoire*|nécessaire*|requis*)|aucune (?:restriction|limite|autorisation n[’']est nécessaire)|aucun frais",
  "sin (?:ninguna )?(?:restricci[óo]n(?:es)?|l[íi]mites?|coste|costo)|no s[óo]lo|no es (?:necesario|obligatorio|obligatoria)|no hace falta|ninguna restricci[óo]n|sin problema",
);

export const NEGATION = words(
  "vietat*|proibit*|proibid*|não|non|niet|geen|verboden|nooit|mai",
  "not|never|no|none|nor|neither|cannot|can[’']t|can’t|mustn[’']t|don[’']t|doesn[’']t|isn[’']t|aren[’']t|won[’']t|prohibit*|forbid*|forbidden|disallow*|exclud*|barred|banned|illegal|refrain*",
  "nicht|kein*|nie|niemals|weder|noch|untersag*|verboten|verbiet*|unzulässig*|ausgeschlossen|unerlaubt|tabu",
  "ne|n[’']*|pas|jamais|aucun*|ni|interdi*|proscri*|exclu*|prohib*|défendu*",
  "no|nunca|jamás|tampoco|ningún*|ni|prohib*|excluid*|excluy*|vedad*",
);

/** "Everything but …": what follows is denied. */
export const EXCEPTION = words(
  "except|excepting|excluding|with the exception of|apart from|other than|but not|and not|just not|save for",
  "außer|ausgenommen|mit ausnahme (?:von|der|des)|abgesehen von|aber nicht|jedoch nicht|nicht aber|und nicht|nicht jedoch|bis auf",
  "sauf|excepté|hormis|à l[’']exception (?:de|des|du)|à l[’']exclusion (?:de|des|du)|mais pas|et non|mais non",
  "salvo|excepto|a excepci[óo]n de|con excepci[óo]n de|menos|pero no|y no",
);

export const PERMISSION = words(
  "applies to|valid for|good for|gilt (?:für|auch)|s[’']applique (?:à|aux)|vaut pour|vale para|válida? para",
  "gratuit[oaie]|consentit*|permess*|può|grátis|gratuit[oa]s?|permitid*|pode|gratis|vrij|mag|toegestaan",
  "extends to|right to use|costs? nothing|go ahead|umsonst|unentgeltlich*|erstreckt sich auf|s[’']étend|se extiende|como quieras|úsal[ao]s?|sírvete|servez-vous|servir",
  "free|freely|may|can|could|(?:is|are) (?:only |meant |intended )?for(?! sale)|allow*|permit*|permission is (?:hereby )?granted|grant*|licensed for|welcome|okay|ok|fine|cleared|includ*|entitle*|covers?|covered|feel free|usable|available for|suitable for|yes|granted|for any|(?:as|however) you (?:like|want|wish|please)|whatever you (?:want|like|wish|please)|anything you (?:want|like|wish|please)|enjoy|help yourself|no problem",
  "frei|freie*|(?:ist|sind) (?:nur |gedacht )?für|kostenlos*|kostenfrei*|gratis|darf|darfst|dürfen|dürft|erlaub*|gestattet*|gestatten|zulässig*|genehmigt|kann|können|könnt|kannst|verwendbar|nutzbar|einsetzbar|umfasst|beinhaltet|enthalten|lizenziert für|berechtigt|freigegeben|gern|gerne|ja|bedenkenlos",
  "libre*|gratuit*|(?:est|sont) (?:uniquement |destinée?s? )?(?:pour|à)|autoris*|permis*|permet*|peu(?:t|vent|x)|pouvez|pourr*|accord*|couvre|comprend|inclu(?:t|s|se)?|offert*|oui|droit",
  "libre*|gratuit*|gratis|(?:es|son) (?:s[óo]lo )?para|permit*|autoriz*|pued*|pod(?:éis|rá|rás)|inclu(?:ye|yen|ido|ida)|concede|cubre|s[íi]|válid[oa]*",
);

export const ONLY = words(
  "solo|soltanto|esclusivamente|apenas|somente|alleen|uitsluitend",
  "only|solely|exclusively|strictly|limited to|restricted to|just for",
  "nur|ausschließlich|lediglich|beschränkt auf|allein|rein",
  "uniquement|seulement|exclusivement|strictement|réservé*|limité*",
  "s[óo]lo|solamente|[úu]nicamente|exclusivamente|estrictamente|limitad*|exclusiv[oa]",
);

export const PURCHASE = words(
  "\\p{L}*lizenz (?:ist |wird )?(?:erforderlich|nötig|notwendig|benötigt)",
  "(?:against|with|subject to|under) (?:a|an) (?:[\\p{L}-]+ )?licen[cs]e|gegen (?:[\\p{L}-]+ )?(?:lizenz|bezahlung|gebühr|entgelt)|mit (?:einer |gültiger )?lizenz|(?:avec|contre|sous) (?:une )?licence (?:payante|commerciale)|avec une licence|con (?:una )?licencia|is sold|are sold|wird verkauft|est vendue?|se vende",
  "acquist*|serve una licenza|licenza commerciale|comprar|licença|adquir*|kopen|aanschaf*|licentie",
  "vergüt*|entgelt|gegen gebühr|remunerat*|royalt*|subscription|abonnement",
  "buy|bought|get (?:a|the) (?:[\\p{L}-]+ )?licen[cs]e|without (?:a |an |the )?(?:[\\p{L}-]+ )?licen[cs]e|buying|purchas*|paid licen[cs]e|paid version|licen[cs]e fee|fees?|pay|paying|payable|payment|full version|upgrade|acquir*|obtain (?:a|an|the) *licen[cs]e|(?:commercial|extended|separate|additional|business|corporate|app|web|broadcast|paid|desktop) licen[cs]es?|licen[cs]e (?:is |must be )?(?:required|needed)|requir* (?:a|an|the)? ?[\\p{L}-]* ?[\\p{L}-]* ?licen[cs]e|needs? (?:a|an) [\\p{L}-]* ?licen[cs]e|sold separately|for sale at|\\d+ ?(?:eur|usd|gbp|euros?|dollars?|pounds?)|[€$£] ?\\d+|\\d+(?:[.,]\\d\\d)? ?[€$£]|costs?|price[ds]?|order",
  "kauf*|ohne (?:eine )?(?:gültige |entsprechende |gesonderte )?lizenz|gekauft|erwerb*|erworben|käuflich*|kostenpflichtig*|lizenzgebühr*|gebührenpflichtig*|bezahl*|vollversion|zu zahlen|zahlen sie|lizenzpflichtig*|bestell*|eine (?:eigene |gesonderte |kommerzielle |gewerbliche |zusätzliche )?lizenz (?:nötig|erforderlich|notwendig)|(?:benötig|brauch)\\p{L}* (?:sie |ihr |du |man )?(?:dafür |hierfür )?eine (?:\\p{L}+ )?lizenz|lizenz erforderlich|preis|preise",
  "achet*|s[’']ach[èe]t*|sans (?:une )?licence|achat*|payant*|payer|paiement|acqu[ée]r*|acquisition|version (?:complète|payante)|licence (?:commerciale|payante|étendue|séparée)|vendu* (?:séparément|à part)|commander|tarif*|prix|(?:nécessite|requiert|exige)\\p{L}* une licence",
  "sin (?:una )?licencia|compr(?:a|ar|e|en|as|ad|arla|arse|ando)|adqui(?:r|er)*|de pago|pag(?:a|ar|o|ue|uen|ando)|versi[óo]n completa|licencia comercial|licencia (?:ampliada|aparte|adicional)|se vende* aparte|precio*|(?:requiere|necesita|exige)\\p{L}* una licencia",
);

export const ASKING = words(
  "contatt*|autorizzazione|permesso scritto|autorização|permissão|contate|toestemming|contacteer",
  "for a quote|quote|quotation|auf angebot|sur devis|devis|presupuesto|licensing terms",
  "contact*|ask|asking|e-?mail me|e-?mail us|write (?:to )?(?:me|us)|get in touch|drop (?:me|us) a line|written (?:permission|consent|approval|agreement|authori[sz]ation)|prior (?:permission|consent|approval|written|agreement)|express (?:permission|consent)|permission (?:of|from|by|is required|required)|(?:my|our|his|her|their) (?:permission|consent|approval)|without (?:permission|consent|approval)|consent of|approval of|on request|upon request|enquir*|inquir*|arrange*|negotiat*|let (?:me|us) know",
  "kontakt*|anfrag*|angefragt|fragen sie|frag mich|fragt mich|nachfrag*|rückfrag*|rücksprache|schriftliche*|genehmigung|zustimmung|einwilligung|erlaubnis|einverständnis|melde dich|melden sie|meldet euch|schreib* (?:mir|uns|sie mir|sie uns)|auf anfrage|absprache|vereinbar*",
  "contact*|demand(?:er|ez|e)(?:-moi|-nous)?|écri(?:vez|re|s)(?:-moi|-nous)?|autorisation|accord (?:écrit|préalable|exprès)|consentement|sur demande|sous réserve d[’']accord|permission (?:écrite|préalable)",
  "contact*|contáct*|pregunt*|consult*|escr[íi]b*|permiso|autorizaci[óo]n|consentimiento|bajo petici[óo]n|solicit*|pedir|p[íi]de*",
);

export const CREDIT = words(
  "credit*|attribut*|acknowledg*|by-?line|(?:author|designer|maker|name|source)[’'s]* (?:name )?(?:is|be|are|must be|has to be) (?:mentioned|named|credited|stated|given)|mention(?:ing|ed)? (?:of )?(?:the |my |our |its |me|us)|name (?:me|us|the (?:designer|author|maker|source))|naming the (?:designer|author|maker|source)",
  "namensnennung|nennung*|genannt|nennen|nenne|nennt|quellenangabe*|quelle angeben|urhebernennung|urheberangabe|bildnachweis|credits?|erwähn*",
  "crédit*|mention*|cit(?:er|ez|é|ée|ant)|attribution|nommer|signal(?:er|ez)",
  "crédit*|mencion*|menci[óo]n|cit(?:ar|ando|e|en|ad[oa])|atribuci[óo]n|atribuy*|reconocimiento|nombr(?:ar|ando|e)|indicar la autor[íi]a",
);
/** A wish, not a condition. */
export const OPTIONAL = words(
  "appreciat*|welcome|optional|not (?:required|needed|necessary|mandatory|obligatory)|would be (?:nice|great|lovely|kind)|if you (?:like|want|wish|can)|no need|not have to|don[’']t have to|voluntar*|always nice|no (?:credit*|attribution*|acknowledg*|mention*) (?:is |are )?(?:needed|required|necessary|expected|asked)",
  "freue* (?:mich|uns)|freuen (?:wir|uns)|willkommen|freiwillig*|nicht (?:erforderlich|nötig|notwendig|pflicht|zwingend)|keine pflicht|gern(?:e)? gesehen|wäre (?:schön|nett|toll)|würde mich freuen|wer (?:mag|möchte)|keine (?:namensnennung|nennung|quellenangabe|urhebernennung|urheberangabe|credits?) (?:ist )?(?:nötig|erforderlich|notwendig|verlangt|pflicht)",
  "appréci*|bienvenu*|facultati*|pas (?:obligatoire*|nécessaire*)|si vous (?:voulez|le souhaitez|souhaitez)|serait (?:apprécié|gentil)|aucune? (?:crédit*|mention*|attribution) (?:n[’']est )?(?:requise?|nécessaire|exigée?|demandée?|obligatoire)",
  "agradec*|bienvenid*|opcional*|voluntari*|no (?:es )?(?:necesari|obligatori)[oa]|si quieres|si lo deseas|no hace falta",
);

export const DONATION = words(
  "donat*|tip jar",
  "spende*|spenden|gespendet",
  "dons?(?![’'])|donation*",
  "donativo*|donaci[óo]n*|donar|dona",
);

/** One word that stands for a whole bargain. */
export const BARGAIN = words("donation[- ]?ware|share[- ]?ware|charity[- ]?ware");

/** Points back at the uses named before. */
export const THESE_USES = words(
  "these (?:uses|cases|purposes)|this (?:use|case|purpose)|such (?:uses?|cases)|for (?:this|that|these|those|it)",
  "dafür|hierfür|dazu|diese (?:nutzung*|verwendung*|fälle)|in diesen fällen|in diesem fall",
  "pour cela|à cet effet|dans ce(?:s)? cas|ces usages|cet usage",
  "para ello|para esto|para eso|en (?:ese|este|estos|esos) casos?|estos usos|ese uso",
);

export const TRIAL = words(
  "trial*|demo|demo version|demonstration|evaluation|evaluate|for testing|test (?:version|font|purposes|file)|preview version|try[- ]?out|specimen only",
  "testversion*|probeversion*|demoversion*|zu testzwecken|testzweck*|zum testen|zum ausprobieren|probeschrift*|testschrift*|evaluierung|demo",
  "essai|d[’']évaluation|évaluation|version de démonstration|démo",
  "prueba|de evaluaci[óo]n|evaluaci[óo]n|demostraci[óo]n|demo",
);

/** The file itself is handed on, sold, changed: says nothing of what is set with it. */
export const PASSING_ON = words(
  "redistribut*|distribut*|resell*|re-?sold|sell (?:this|the|it|these) ?(?:font|typeface|file)?s?(?: itself| file| files)?|sold by (?:itself|themselves)|shar(?:e|ed|ing)|upload*|re-?upload*|repackag*|sublicens*|rent*|lend*|lent|leas*|modif*|alter*|edit*|renam*|convert*|decompil*|reverse[- ]engineer*|copy|copied|copies of (?:the|this) (?:font|file)|claim*|host*|mirror*|pass (?:it|them|the font|this font) on|give (?:it|them|the font) away",
  "weitergeb*|weitergegeben|weitergabe|weiterverkauf*|weiterverkauft|vertreib*|vertrieb*|verbreit*|hochlad*|hochgeladen|veränder*|verändert|bearbeite*|umbenenn*|umbenannt|konvertier*|umwandeln|verleih*|vermiet*|kopier*|zurückentwickel*|dekompilier*|die schrift(?:datei)? (?:selbst )?(?:zu )?verkauf*",
  "redistribu*|distribu*|revend*|revente|vendre (?:la|cette|ce) (?:police|fonte|fichier)|partag*|modifi*|renomm*|convert*|copi(?:er|ez|e|é|ée)|héberg*|décompil*|sous-licenci*|louer",
  "redistribu*|distribu*|revend*|reventa|vender (?:la|esta|el) (?:fuente|tipografía|archivo)|compart*|modific*|renombr*|convert*|copi(?:ar|e|arse)|alquil*|subir|descompil*|sublicenci*",
);
/** The font as a thing, for "sell": who sells it sells no goods made with it. */
export const FONT_ITSELF = words(
  "(?:the|this|these|that) (?:fonts?|typefaces?|font files?|files?)(?: itself| themselves| files?)?|itself|font software|the software",
  "(?:die|diese|der|dieser) (?:schrift|schriften|schriftart|schriftdatei|font|fonts|dateien)|selbst",
  "(?:la|cette|les|ces) (?:polices?|fontes?|fichiers?)|elle-même",
  "(?:la|esta|las|estas|el|los) (?:fuentes?|tipograf[íi]as?|archivos?)|en s[íi]",
);
export const SELLING = words(
  "sell|selling|sold|resell*|resale",
  "verkauf*|verkauft",
  "vendre|vendu*|revend*|vente",
  "vend(?:er|e|as|an|ida|ido)|venta|revend*",
);

/** Up to so many: beyond that another agreement is needed. */
export const LIMIT = words(
  "up to \\d+|(?:maximum|max\\.?) (?:of )?\\d+|(?:no|not) more than \\d+|fewer than \\d+|less than \\d+|under \\d+",
  "bis (?:zu )?\\d+|höchstens \\d+|maximal \\d+|nicht mehr als \\d+",
  "jusqu[’']à \\d+|maximum (?:de )?\\d+|au plus \\d+",
  "hasta \\d+|m[áa]ximo (?:de )?\\d+|no m[áa]s de \\d+",
);

/** People who have paid: what they may, others may not. */
export const PAYING = words(
  "(?:licen[cs]e )?(?:holders|owners)|buyers|purchasers|subscribers|patrons|supporters|backers|paying members|registered users|(?:need|have|must) to register|pro version|premium",
  "inhaber*|käufer*|abonnent*|lizenzinhaber*|unterstützer*|registrierte nutzer|proversion",
  "détenteurs?|acheteurs?|abonnés?|titulaires?|propriétaires? d[’']une licence|version pro",
  "compradores?|titulares?|suscriptores|poseedores|versi[óo]n pro",
);

/** Grants that are none: of the past, of other things, of some other font. */
export const NO_GRANT = words(
  "was|were|used to|would be|had been|some of (?:our|my|the)|most of (?:our|my|the)|other fonts|my other|our other",
  "war|früher|einige (?:unserer|meiner|der)|manche|andere schriften",
  "était|étaient|certaines de (?:nos|mes)|d[’']autres polices",
  "era|eran|algunas de (?:nuestras|mis)|otras fuentes",
);

export const YES = words(
  "yes|yep|sure|of course|go ahead|absolutely|certainly",
  "ja|klar|natürlich|selbstverständlich|gern|gerne",
  "oui|bien sûr|bien entendu|évidemment",
  "s[íi]|claro|por supuesto",
);
export const NO_ANSWER = words(
  "no|nope|sorry|unfortunately|not",
  "nein|leider|nicht",
  "non|désolé*|malheureusement|hélas|pas",
  "no|lo siento|todavía|lamentablemente",
);

/** What is left after the uses named before. */
export const OTHER_USE = words(
  "all others|anyone else|everyone else|alle übrigen|les autres|los demás|las demás",
  "(?:any|all|every) other|other(?:wise)? uses?|everything else|anything else|all else",
  "jede andere|alle anderen?|jeder andere|alles andere|sonstige*|darüber hinaus",
  "tout(?:e)? autre|tous les autres|le reste|autrement",
  "cualquier otro|todos los demás|lo demás|otros usos",
);

/** Anything of terms at all: a text without any says nothing of rights. */
export const ABOUT_TERMS = words(
  "sell*|fees?|commercieel|commerciale|uso|gebruik|licenza|licença|licentie|vietat*|proibid*|verboden|für alle",
  "licen[cs]*|copyright*|©|rights|permission*|permitted|allowed|commercial*|terms|freeware|shareware|public domain|free (?:for|to|of)|for free|personal use|private use|you (?:may|can|must)|use (?:it|this|these)|usage|credit|attribution|merch*|embed*|purchase|trial|demo|donat*|trademark*",
  "lizenz*|urheberrecht*|rechte|genehmig*|erlaub*|gestattet|kommerziell*|gewerblich*|nutzung*|verwend*|verwenden|kostenlos|frei für|gemeinfrei*|testversion|spende*|nutzen|marken*",
  "licence*|droits?|autoris*|commercia*|usage*|utilis*|gratuit*|libre*|personnel*|domaine public|essai|achet*|don",
  "licencia*|derechos|autoriz*|comercial*|uso|usar*|utiliz*|gratis|gratuit*|libre*|dominio público|prueba|permit*|prohib*|donativo",
);

/** Scopes. Each names uses of ours; "any" all, "commercial" all that earn. */
export const SCOPES = {
  private: words(
    "personale|pessoa(?:l|is)|persoonlijk*|privé|privégebruik|privatleute*|privatperson*|private persons?",
    "personal(?:ly)?|private(?:ly)?|for yourself|home use|at home|home crafts?|hobby*|§private§|own (?:private )?pleasure",
    "privat*|persönlich*|eigenbedarf|eigengebrauch|hobby*|zu hause",
    "personnel*|perso|privé*|domestique*|particuliers?|à la maison|chez (?:vous|soi|toi)",
    "personal(?:es)?|privad*|doméstic*|particular(?:es)?|en casa",
  ),
  commercial: words(
    "commerciale|commerciali|comercia(?:l|is)|commercieel|commerciële|zakelijk|customers?|professionnels?",
    "commercial(?:ly)?|business(?:es)?|for profit|client work|client projects?|paid (?:work|projects?|jobs?)|(?:you[’']?r?e?|are|get|gets|being) paid for|professional use|earn*|at work|make money|money[- ]making|compan(?:y|ies)|agenc(?:y|ies)",
    "kommerziell*|gewerblich*|geschäftlich*|kundenprojekt*|kundenauftr*|auftragsarbeit*|bezahlte*|erwerbszweck*|firmen|unternehmen|geld verdien*|bei der arbeit",
    "commercia(?:l|le|les|ux|lement)|professionnel*|clients?|rémunér*|entreprises?|au travail|lucratif|lucrative*",
    "comercial(?:es|mente)?|profesional(?:es)?|clientes?|negocios?|empresas?|en el trabajo|lucrativ*|remunerad*",
  ),
  any: words(
    "come (?:vuoi|volete)|qualsiasi uso|qualquer (?:uso|fim)|elk(?:e)? (?:doel|gebruik)|como quieras|úsal[ao]s? como",
    "(?:any|all|every) (?:kinds? of |other |sorts? of |types? of )?(?:purposes?|uses?|projects?|usage|medium|media|ways?|works?)|for (?:anything|everything|everyone)|anything you (?:like|want|wish|please)|whatever you (?:want|like|wish|please)|any way you (?:want|like|wish)|(?:however|wherever) you (?:want|like|wish|please)|unrestricted*|without (?:any )?restrictions?|no restrictions?|do (?:anything|what you (?:want|like|please))",
    "(?:alle|allen|jede|jeden|jedem|jeder|jegliche|jeglichen|sämtliche|beliebige|beliebigen) (?:art der |art von |arten von |anderen? )?(?:zweck*|nutzung*|verwendung*|projekt*|einsatz*|anwendung*|gebrauch)|uneingeschränkt*|keine einschränkungen|ohne (?:jede |jegliche )?einschränkung*|wofür (?:sie|ihr|du) (?:woll|woll|möcht|willst)*|für alles",
    "(?:tout|tous|toute|toutes) (?:les |type d[’']|types d[’']|sorte d[’'])?(?:usages?|utilisations?|projets?|fins?|emplois?)|sans (?:aucune )?restrictions?|n[’']importe quel(?:le)? (?:usage|projet|utilisation)|comme (?:vous|bon vous) (?:voulez|semble)|ce que vous voulez",
    "(?:cualquier|todo|todos|toda|todas) (?:los |las |tipo de |clase de |otro )?(?:uso|usos|proyecto|proyectos|prop[óo]sito|fin|fines|trabajo|trabajos)|sin (?:ninguna )?restricci[óo]n(?:es)?|como quieras|lo que quieras|para todo",
  ),
  "client-print": words(
    "druckerzeugnis*|printerzeugnis*|social media images",
    "publications?|advert*|newspapers?|werbung|anzeigen?|zeitungen?|publicités?|publicidad|publicaciones|catalog(?:ue)?s?|packaging|verpackung*",
    "print|prints|printed|printing|posters?|flyers?|leaflets?|brochures?|books?|booklets?|magazines?|stationery|business cards?|documents?|static images|invitations?|signage",
    "druck|drucke|drucken|gedruckte*|drucksachen|drucksache|druckwerk*|plakat*|flyer|broschüre*|bücher*|buch|zeitschrift*|visitenkarte*|printprodukt*|printmedien|dokument*|einladung*|gedruckt",
    "imprim*|impression|affiches?|prospectus|brochures?|livres?|magazines?|documents?|cartes? de visite|papeterie",
    "impres(?:o|os|ión|a|as|iones)|carteles?|folletos?|libros?|revistas?|documentos?|tarjetas?|imprimir",
  ),
  "goods-for-sale": words(
    "merch|merchandis*|goods|products|(?:physical |end |printed |finished )?(?:product|item)s? (?:for sale|that are sold|sold)|items|t-?shirts?|mugs?|(?:things|articles|objects) (?:for sale|you sell|that are sold|to sell)|for sale|print[- ]on[- ]demand|souvenirs?|apparel|clothing",
    "waren|ware|warenverkauf|merchandise*|produkten?|artikeln?|verkaufsware*|zum verkauf|t-?shirts?|tassen|handelsware*|souvenirs?|kleidung|verkaufsprodukt*",
    "marchandises?|produits?|articles?|objets?|destinés? à la vente|à vendre|à la vente|t-?shirts?|souvenirs?|vêtements?",
    "productos?|mercanc[íi]as?|art[íi]culos?|a la venta|para (?:la )?venta|camisetas?|recuerdos|objetos|ropa",
  ),
  web: words(
    "web ?fonts?|web ?sites?|web|websites?|@font-face|online use|online|internet|html|css|web ?pages?|homepage*",
    "webfont*|web|webseite*|internetseite*|website*|@font-face|internet|online|homepage*|webauftritt*",
    "web|sites?|sites? (?:web|internet)|internet|en ligne|@font-face|webfont*",
    "web|webs|sitios?|páginas?|internet|en línea|@font-face|fuente web|webfont*",
  ),
  video: words(
    "videos?|films?|movies?|broadcast*|television|tv|streaming|motion (?:graphics|pictures?)|animation*|cinema|titles? sequences?",
    "videos?|film|filme|filmen|fernseh*|rundfunk*|sendung*|kino*|streaming|animation*|bewegtbild",
    "vidéos?|films?|télé*|cinéma|diffusion|audiovisuel*|animation*",
    "v[íi]deos?|pel[íi]culas?|televisi[óo]n|cine|audiovisual(?:es)?|emisi[óo]n|animaci[óo]n*",
  ),
  app: words(
    "apps?|applications?|mobile|games?|e-?books?|epub|software (?:products?|applications?)|programs?|embed(?:ded|ding)? in (?:an? )?(?:app|software|game)s?",
    "apps?|spiele|spielen|spiel|software|e-?books?|computerprogramm*|anwendungen|programmen",
    "applis?|applications?|jeux|jeu|logiciels?|livres? numériques?|e-?books?|ebooks?",
    "apps?|aplicaci[óo]n|aplicaciones|juegos?|programas?|software|libros electrónicos|e-?books?",
  ),
  cutting: words(
    "cutting|cut (?:vinyl|letters|files?)|vinyl|die[- ]cut*|plotter*|laser*|engrav*|cutter*|cutting machines?|stencils?",
    "plott*|geplottet|folie|folien|folienschnitt|schneid*|geschnitten*|laser*|gravur*|gravier*|aufkleber*|schneideplotter",
    "découp*|vinyle|adhésif*|gravure*|grav(?:er|é|ée)|laser|plotter",
    "corte|cortar|vinilo*|grabad*|grabar|l[áa]ser|plotter|troquel*",
  ),
  logo: words(
    "logos?|logotypes?|trademarks?|trade marks?|service marks?|brand(?:s|ing)?|brand marks?|corporate identit(?:y|ies)|wordmarks?",
    "logos?|logotyp*|marken|marke|wortmarke*|bildmarke*|firmenzeichen|signets?|markenzeichen|corporate design",
    "logos?|logotypes?|marques?|identit[ée]s? visuelles?",
    "logos?|logotipos?|marcas?|imagen corporativa|identidad*",
  ),
} as const;
export type Scope = keyof typeof SCOPES;
