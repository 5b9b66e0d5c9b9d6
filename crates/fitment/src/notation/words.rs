//! The words people use for the pieces of a setup, in the languages price lists and messages come in. Accents are gone
//! by then ([`super::normalize`]): "déport" is looked up as "deport".
//!
//! # Source
//! Common practice, no published source.

use super::scan::Words;

/// Offset, before its figure.
pub(super) static OFFSET: Words = Words::new(&[
    "et",
    "e.t.",
    "e.t",
    "e t",
    "is",
    "offset",
    "inset",
    "os",
    "of",
    "off",
    "einpresstiefe",
    "einpress",
    "deport",
    "deporte",
    "odsadzenie",
    "osadzenie",
    "inpressning",
    "inpressningsdjup",
    "campanatura",
    "desplazamiento",
    "oффcet",
    "オフセット",
    "インセット",
]);
/// Offset, behind its figure.
pub(super) static OFFSET_BEHIND: Words =
    Words::new(&["positive offset", "pos offset", "offset", "off", "inset", "et", "deport", "einpresstiefe"]);
pub(super) static BACKSPACING: Words =
    Words::new(&["backspacing", "backspace", "back spacing", "back space", "b.s.", "b/s", "bs"]);
pub(super) static SPACER: Words = Words::new(&[
    "wheel spacers",
    "wheel spacer",
    "spacers",
    "spacer",
    "distanzscheiben",
    "distanzscheibe",
    "spurplatten",
    "spurplatte",
    "spurverbreiterungen",
    "spurverbreiterung",
    "distanziali",
    "distanziale",
    "separadores",
    "separador",
    "elargisseurs",
    "elargisseur",
    "entretoises",
    "entretoise",
    "spoorverbreders",
    "spoorverbreder",
    "distanser",
    "distans",
    "dystanse",
    "dystans",
    "dystansy",
    "espacadores",
    "espacador",
    "スペーサー",
]);
/// What may stand between a thickness and the word.
pub(super) static SPACER_KIND: Words = Words::new(&[
    "bolt-on",
    "bolt on",
    "slip-on",
    "slip on",
    "hubcentric",
    "hub-centric",
    "hub centric",
    "thick",
    "wheel",
    "alloy",
]);
/// Bolt circle, before count and diameter or before the diameter alone.
pub(super) static CIRCLE: Words = Words::new(&[
    "pcd",
    "p.c.d.",
    "lk",
    "lochkreis",
    "bolt circle",
    "bolt pattern",
    "entraxe",
    "steek",
    "steekcirkel",
    "rozstaw",
    "bultcirkel",
    "bultmonster",
    "interasse",
    "anclaje",
    "boltpattern",
    "furacao",
]);
/// How many fasteners, before the figure.
pub(super) static COUNT: Words =
    Words::new(&["lochzahl", "holes", "lugs", "bolts", "agujeros", "trous", "gaten", "hal"]);
/// How many fasteners, behind the figure.
pub(super) static COUNT_BEHIND: Words = Words::new(&[
    "lugs", "lug", "bolts", "bolt", "holes", "hole", "loch", "trous", "fori", "gats", "穴", "h",
]);
pub(super) static BORE: Words = Words::new(&[
    "cb",
    "c.b.",
    "c/b",
    "center bore",
    "centre bore",
    "centerbore",
    "centrebore",
    "hub bore",
    "hubbore",
    "bore",
    "hub",
    "hb",
    "mb",
    "ml",
    "nb",
    "nlb",
    "mittenloch",
    "nabenloch",
    "nabenbohrung",
    "nabe",
    "mittenbohrung",
    "dia",
    "d",
    "ø",
    "alesage",
    "moyeu",
    "buje",
    "naafgat",
    "naaf",
    "otwor",
    "navhal",
    "nav",
    "centrehole",
    "foro centrale",
    "foro",
    "furo central",
    "furo",
    "mozzo",
    "cubo",
    "chb",
    "ハブ径",
]);
/// Bore, behind its figure.
pub(super) static BORE_BEHIND: Words =
    Words::new(&["center bore", "centre bore", "hub bore", "hubbore", "bore", "chb", "cb", "hub"]);
pub(super) static CENTER_LOCK: Words = Words::new(&[
    "center lock",
    "center-lock",
    "centerlock",
    "centre lock",
    "centre-lock",
    "centrelock",
    "zentralverschluss",
    "cl",
]);

/// Front axle. Letters that are words of their own elsewhere stand in the axle reader.
pub(super) static FRONT: Words = Words::new(&[
    "front axle",
    "fronts",
    "front",
    "vorderachse",
    "vorne",
    "vorn",
    "va",
    "avant",
    "av",
    "anteriore",
    "anteriori",
    "delantera",
    "delanteras",
    "delantero",
    "delanteros",
    "voor",
    "vooras",
    "fram",
    "framaxel",
    "przod",
    "przednia",
    "dianteira",
    "dianteiro",
    "etu",
    "delante",
    "davanti",
    "framme",
    "foran",
    "ant",
    "フロント",
    "前",
]);
/// Rear axle.
pub(super) static REAR: Words = Words::new(&[
    "rear axle",
    "back axle",
    "rears",
    "rear",
    "hinterachse",
    "hinten",
    "ha",
    "arriere",
    "ar",
    "posteriore",
    "posteriori",
    "trasera",
    "traseras",
    "trasero",
    "traseros",
    "achter",
    "achteras",
    "bak",
    "bakaxel",
    "tyl",
    "tylna",
    "traseira",
    "traseiro",
    "taka",
    "detras",
    "atras",
    "dietro",
    "bagtil",
    "post",
    "リア",
    "リヤ",
    "後",
]);
pub(super) static BOTH: Words = Words::new(&[
    "front and rear",
    "front & rear",
    "front + rear",
    "front/rear",
    "f&r",
    "front and back",
    "front & back",
    "front/back",
    "everywhere",
    "all the way around",
    "all the way round",
    "both axles",
    "both",
    "all four",
    "all round",
    "all around",
    "rundum",
    "squared",
    "square",
    "vorne und hinten",
    "va und ha",
    "va+ha",
    "va/ha",
    "前後",
]);

/// Words people put between the pieces; they say nothing.
pub(super) static FILLERS: Words = Words::new(&[
    "with",
    "and",
    "on",
    "in",
    "at",
    "a",
    "an",
    "the",
    "of",
    "set",
    "wheel",
    "wheels",
    "rim",
    "rims",
    "tire",
    "tires",
    "tyre",
    "tyres",
    "mm",
    "pcs",
    "each",
    "axle",
    "size",
    "new",
    "used",
    "w/",
    "up",
    "only",
    "by",
    "und",
    "mit",
    "auf",
    "et",
    "e",
    "y",
    "con",
    "och",
    "en",
    "met",
    "avec",
    "per",
    "side",
    "jante",
    "jantes",
    "pneu",
    "pneus",
    "felge",
    "felgen",
    "reifen",
    "llanta",
    "llantas",
    "neumatico",
    "neumaticos",
    "velg",
    "velgen",
    "felga",
    "felgi",
    "falg",
    "falgar",
    "dack",
    "alufelgen",
    "satz",
    "cerchio",
    "cerchi",
    "gomme",
    "pair",
    "width",
    "wide",
    "diameter",
    "to",
]);

/// Words that announce figures which are no piece of a setup: what was measured, done or is wanted of the car, and
/// where an article stands in a list. They are left aside with their figures, units and axles.
pub(super) static ANNOUNCES_ASIDE: Words = Words::new(&[
    "camber",
    "toe",
    "caster",
    "sturz",
    "spur",
    "lowered",
    "dropped",
    "drop",
    "lift",
    "lifted",
    "tiefer",
    "torque",
    "pressure",
    "gap",
    "rolled",
    "pulled",
    "load",
    "traglast",
    "max load",
    "stock",
    "in stock",
    "sku",
    "art",
    "artikel",
    "item",
    "part no",
    "no",
    "nr",
    "ean",
    "id",
    "kba",
    "utqg",
    "treadwear",
    "tw",
    "tread",
    "profil",
    "year",
    "used",
    "new",
    "neu",
    "qty",
    "quantity",
    "anzahl",
    "set of",
    "satz",
    "price",
    "preis",
    "prix",
    "hub rings",
    "hub ring",
    "rings",
    "ring",
    "brakes",
    "brake",
    "rotors",
    "discs",
    "tel",
    "phone",
    "call",
    "weight",
    "gewicht",
    "km",
    "miles",
    "about",
    "approx",
    "ca",
    "from",
    "at",
    "week",
    "seat",
    "ball",
    "cone",
    "kugel",
    "kegel",
    "bj",
    "baujahr",
    "model",
]);

/// Units of quantities that are no part of a setup.
pub(super) static FOREIGN_UNITS: Words = Words::new(&[
    "kg", "kgs", "lbs", "lb", "g", "psi", "bar", "kpa", "nm", "n·m", "ft-lb", "ft-lbs", "lb-ft", "km/h",
    "kmh", "kph", "km", "mph", "miles", "mi", "hp", "ps", "kw", "db", "db(a)", "°c", "°", "deg", "degrees",
    "%", "eur", "euro", "usd", "gbp", "chf", "sek", "pln", "$", "€", "£", "years", "year", "months", "month",
    "weeks", "days", "cm",
]);

/// Words behind a count: "4 pcs", "2ea".
pub(super) static PIECES: Words = Words::new(&[
    "pcs", "pc", "pieces", "piece", "ea", "each", "stuck", "stk", "st", "szt", "pz", "wheels", "wheel",
    "rims", "tires", "tire", "tyres", "tyre", "felgen", "reifen",
]);

/// What says of a spacer that its figure is of both sides together.
pub(super) static IN_TOTAL: Words = Words::new(&[
    "in total",
    "total",
    "together",
    "per axle",
    "an axle",
    "per pair",
    "gesamt",
    "pro achse",
    "insgesamt",
]);

/// Millimetres.
pub(super) static MILLIMETRES: Words =
    Words::new(&["millimetres", "millimeters", "millimetre", "millimeter", "mm"]);

/// Inches.
pub(super) static INCHES: Words = Words::new(&["inches", "inch", "in", "zoll", "インチ"]);

/// Inches, of a rim.
pub(super) static INCHES_OF_A_RIM: Words = Words::new(&["inches", "inch", "zoll", "pouces", "in", "インチ"]);

/// Inches behind a tire: "in" is a word of its own there.
pub(super) static INCHES_OF_A_TIRE: Words = Words::new(&["inches", "inch", "zoll"]);

/// What an axle's name may be followed by.
pub(super) static AXLE: Words = Words::new(&["axle", "axles", "achse", "end"]);

/// Units of a length.
pub(super) static LENGTHS: Words = Words::new(&["mm", "in", "inch", "inches"]);

/// Currencies.
pub(super) static MONEY: Words = Words::new(&["eur", "euro", "usd", "gbp", "chf", "sek", "pln", "kr"]);

/// What a depth of tread is called.
pub(super) static TREAD_LEFT: Words =
    Words::new(&["tread", "profil", "profile", "restprofil", "left", "remaining"]);

/// What stands behind a treadwear grade.
pub(super) static GRADES: Words =
    Words::new(&["tw", "treadwear", "aaa", "aab", "aa a", "aa b", "a a", "ab", "a b"]);

/// Units of pressure.
pub(super) static PRESSURES: Words = Words::new(&["bar", "psi", "kpa"]);

#[cfg(test)]
mod tests {
    use super::super::normalize::EvenText;
    use super::*;

    #[test]
    fn every_word_of_a_list_is_found_where_it_stands() {
        for (name, list) in [
            ("offset", &OFFSET),
            ("offset behind", &OFFSET_BEHIND),
            ("backspacing", &BACKSPACING),
            ("spacer", &SPACER),
            ("kind of spacer", &SPACER_KIND),
            ("circle", &CIRCLE),
            ("count", &COUNT),
            ("count behind", &COUNT_BEHIND),
            ("bore", &BORE),
            ("bore behind", &BORE_BEHIND),
            ("center lock", &CENTER_LOCK),
            ("front", &FRONT),
            ("rear", &REAR),
            ("both", &BOTH),
            ("fillers", &FILLERS),
            ("announces", &ANNOUNCES_ASIDE),
            ("units", &FOREIGN_UNITS),
            ("pieces", &PIECES),
            ("in total", &IN_TOTAL),
            ("millimetres", &MILLIMETRES),
            ("inches", &INCHES),
            ("inches of a rim", &INCHES_OF_A_RIM),
            ("inches of a tire", &INCHES_OF_A_TIRE),
            ("axle", &AXLE),
            ("lengths", &LENGTHS),
            ("money", &MONEY),
            ("tread left", &TREAD_LEFT),
            ("grades", &GRADES),
            ("pressures", &PRESSURES),
        ] {
            for word in list.all() {
                let text = EvenText::new(word);
                assert!(text.start().eat_known(list).is_some(), "{name}: {word:?} is not found by itself");
                let follows = EvenText::new(&format!("{word} 12"));
                assert!(follows.start().eat_known(list).is_some(), "{name}: {word:?} before a figure");
            }
            // What no word of any list begins with is passed over at once.
            for text in ["", " ", "~", "]"] {
                assert!(EvenText::new(text).start().eat_known(list).is_none(), "{name}: {text:?}");
            }
        }
    }

    #[test]
    fn a_word_that_runs_on_is_another_word() {
        for (list, text) in
            [(&FRONT, "frontmost 12"), (&REAR, "rearview"), (&SPACER, "spacerless"), (&PIECES, "pcsx")]
        {
            assert!(EvenText::new(text).start().eat_known(list).is_none(), "{text}");
        }
    }
}
