//! Texts as people write them, in the trade's habits and languages: read with what is beside the setup left aside, or
//! asked, and never taken for something else. The texts are made up; how people write is common practice.

use fitment::setup::line::{self, read_tire, read_wheel};

#[test]
fn tires_in_all_sorts_of_texts() {
    for (text, canonical) in [
        ("205/55 R16 91 V", "205/55R16 91V"),
        ("235-40-18-95Y", "235/40R18 95Y"),
        ("2354018 95Y", "235/40R18 95Y"),
        ("P235/55R17 98T", "P235/55R17 98T"),
        ("P-195/65R15", "P195/65R15"),
        ("215_60_16", "215/60R16"),
        ("245/45R18 100Y XL MOE", "245/45R18 100Y XL MOE"),
        ("225/50R17 98Y XL AO", "225/50R17 98Y XL AO"),
        ("255/40R20 101Y XL RO2", "255/40R20 101Y XL RO2"),
        ("275/40R19 (105Y) XL N1", "275/40R19 (105Y) XL N1"),
        ("245/35ZR20 (95Y)XL", "245/35ZR20 (95Y) XL"),
        ("205/45R17 88V XL *", "205/45R17 88V XL *"),
        ("185/65HR14", "185/65HR14"),
        ("205/70 SR 14", "205/70SR14"),
        ("155R13", "155R13"),
        ("175R14C 99/98Q", "175R14C 99/98Q"),
        ("6.70-15", "6.70-15"),
        ("6.50R16", "6.50R16"),
        ("35x12.50R20LT 125R E", "35x12.50R20LT 125R LR E"),
        ("35x12.5R20", "35x12.50R20"),
        ("37X13.50R20LT", "37x13.50R20LT"),
        ("LT37x12.50R17", "37x12.50R17LT"),
        ("32x11.50-15", "32x11.50-15"),
        ("40x13.5x17", "40x13.50R17"),
        ("35 12.50 20", "35x12.50R20"),
        ("285/75/16", "285/75R16"),
        ("LT265/70R17 E", "LT265/70R17 LR E"),
        ("265/70R17 LT 121/118S E", "LT265/70R17 121/118S LR E"),
        ("LT245/70R17 119/116R 10PR", "LT245/70R17 119/116R LR E"),
        ("225/70R15C 112/110R", "225/70R15C 112/110R"),
        ("205/75R16 C 113/111R", "205/75R16C 113/111R"),
        ("HL265/40R22 106H", "HL265/40R22 106H"),
        ("265/45R21 HL 108V", "HL265/45R21 108V"),
        ("195/50R15 82V A/A/68dB", "195/50R15 82V"),
        ("205/55R16 91V E/C/71", "205/55R16 91V"),
        ("245/40R18 97Y 3PMSF M+S", "245/40R18 97Y M+S 3PMSF"),
        ("245/40R18 97Y XL UTQG 320 AA A", "245/40R18 97Y XL"),
        ("TR-88 245/40R18 97Y", "245/40R18 97Y"),
        ("245/40R18 Sylva 9", "245/40R18"),
        ("Norden Grip 7 205/55R16 94T XL", "205/55R16 94T XL"),
        ("4 x 225/45R17", "225/45R17"),
        ("225/45R17 x4", "225/45R17"),
        ("two forty five forty ZR eighteen", "245/40ZR18"),
        ("one eighty five sixty fourteen", "185/60R14"),
        ("thirty five twelve fifty seventeen", "35x12.50R17"),
        ("27.0/9.0-15", "27.0/9.0-15"),
        ("28.5x10.5-15W", "28.5x10.5-15"),
        ("24.5x8.5-15", "24.5x8.5-15"),
        ("22/8.0-13", "22.0/8.0-13"),
        ("24/61-17", "240/610-17"),
        ("270/650R18", "270/650R18"),
        ("245/40R18 year 2021", "245/40R18"),
        ("225/45 17", "225/45R17"),
        ("225/45-R17", "225/45R17"),
        ("225/45 R 17\"", "225/45R17"),
        ("245/40 R18 (97Y) DOT 0119", "245/40R18 (97Y)"),
        ("245/40R18 SSR", "245/40R18"),
        ("däck 205/55R16 91T dubb", "205/55R16 91T"),
        ("opony 205/55 R16 91H zimowe", "205/55R16 91H"),
        ("pneumatici 225/45 R17 94W", "225/45R17 94W"),
        ("neumático 225/45R17 94W XL", "225/45R17 94W XL"),
        ("banden 205/55R16 91V", "205/55R16 91V"),
        ("225/54R17 98V", "225/54R17 98V"),
        ("LT 33x12.50R15", "33x12.50R15LT"),
        ("33x12.50R15 C", "33x12.50R15 LR C"),
        ("7.50-16LT", "7.50-16LT"),
        ("225/45R17 91W 200TW", "225/45R17 91W"),
        ("225/45R17 treadwear 340", "225/45R17"),
        ("225/45R17 91W 9.2 kg", "225/45R17 91W"),
        ("225/45R17 91W 5.5/32", "225/45R17 91W"),
    ] {
        let read = read_tire(text).unwrap_or_else(|error| panic!("{text:?} was refused: {error}"));
        assert_eq!(read.part.to_string(), canonical, "{text:?}");
        assert_eq!(canonical.parse(), Ok(read.part), "{canonical:?} must read as itself");
    }
}

#[test]
fn wheels_in_all_sorts_of_texts() {
    for (text, canonical) in [
        ("9Jx19 H2 ET33 5x112 66.6", "19x9 ET33 5x112 CB66.6"),
        ("19x9 ET33 5/112/66.5", "19x9 ET33 5x112 CB66.5"),
        ("19x9.0 et +33 lk 5x112 nb 66.6", "19x9 ET33 5x112 CB66.6"),
        ("17x7J", "17x7"),
        ("7x17 ET-5", "17x7 ET-5"),
        ("18x9.5 22", "18x9.5 ET22"),
        ("18x9.5 +22mm", "18x9.5 ET22"),
        ("18x9.5 22mm offset", "18x9.5 ET22"),
        ("18x8 offset: 35", "18x8 ET35"),
        ("18x8 offset-35", "18x8 ET-35"),
        ("18x8 offset -35", "18x8 ET-35"),
        ("18x8 ET -35", "18x8 ET-35"),
        ("18x8 - ET35", "18x8 ET35"),
        ("18x8 minus 5 offset", "18x8 ET-5"),
        ("18x8 positive 35", "18x8 ET35"),
        ("18x8, 35 mm positive offset", "18x8 ET35"),
        ("17x9 +0", "17x9 ET0"),
        ("17x9 ET00", "17x9 ET0"),
        ("16x7 6 lug 139.7", "16x7 6x139.7"),
        ("16x7 5x4.75\"", "16x7 5x120.65"),
        ("16x7 5x4 3/4", "16x7 5x120.65"),
        ("16x7 5 on 5", "16x7 5x127"),
        ("16x7 5-lug 4.5", "16x7 5x114.3"),
        ("15x7 4x4.5", "15x7 4x114.3"),
        ("15x8 5x5.5 3.75\" BS", "15x8 ET-19.05 5x139.7"),
        ("15x10 3 3/4 bs", "15x10 ET-44.45"),
        ("17x9 5.04\" backspacing", "17x9 ET1.02"),
        ("17x8.5 BS 4.75", "17x8.5 ET0"),
        ("20x9 8x180 124.1", "20x9 8x180 CB124.1"),
        ("20x9 +1 6x120 CB 67.1", "20x9 ET1 6x120 CB67.1"),
        ("18x8 5x120/72.6", "18x8 5x120 CB72.6"),
        ("18x8 5x112x66.6", "18x8 5x112 CB66.6"),
        ("18x8.5 5x108 63.4 ET42", "18x8.5 ET42 5x108 CB63.4"),
        ("18x8.5 5x108 ET42 63.4", "18x8.5 ET42 5x108 CB63.4"),
        ("18x8.5 5x114.3 67.1", "18x8.5 5x114.3 CB67.1"),
        ("18x8.5 5x114.3 45", "18x8.5 ET45 5x114.3"),
        ("17x7.5 4x100/4x114.3 ET40", "17x7.5 ET40 4x100/114.3"),
        ("17x7.5 8x100/108 ET40", "17x7.5 ET40 4x100/108"),
        ("18x8 5x112/5x120", "18x8 5x112/120"),
        ("18x8 5x100 & 5x112", "18x8 5x100/112"),
        ("18x8.5 CL", "18x8.5 center lock"),
        ("18x8.5 ET35 blank", "18x8.5 ET35"),
        ("19x9.5 center lock +40", "19x9.5 ET40 center lock"),
        ("18x9 CB 73.1 with 66.6 ring", "18x9 CB73.1"),
        ("18x9 ET35 hub ring 73.1-66.6", "18x9 ET35"),
        ("19\" x 9.5\" +25", "19x9.5 ET25"),
        ("19in 9.5J +25", "19x9.5 ET25"),
        ("9.5 x 19 in ET25", "19x9.5 ET25"),
        ("19*9.5 +25", "19x9.5 ET25"),
        ("19 X 9,5 ET25,5", "19x9.5 ET25.5"),
        ("9J19 ET25", "19x9 ET25"),
        ("9J-19 ET25", "19x9 ET25"),
        ("R19 9J ET25", "19x9 ET25"),
        ("19 9.5 25", "19x9.5 ET25"),
        ("19-9.5-25", "19x9.5 ET25"),
        ("16 x 6½ J", "16x6.5"),
        ("14x5½J ET 38", "14x5.5 ET38"),
        ("8¼x18", "18x8.25"),
        ("18x8.25 ET35", "18x8.25 ET35"),
        ("18x9.33 ET35", "18x9.33 ET35"),
        ("22x10.5 ET20 6x139.7 CB 106.1 load 1100kg", "22x10.5 ET20 6x139.7 CB106.1"),
        ("4x 18x8 ET45", "18x8 ET45"),
        ("18x8 ET45 (4)", "18x8 ET45"),
        ("set 18x8 ET45", "18x8 ET45"),
        ("Felge 8,5Jx19 ET 32 LK 5x112 ML 66,5", "19x8.5 ET32 5x112 CB66.5"),
        ("jante alu 7x16 ET45 4x108", "16x7 ET45 4x108"),
        ("cerchio 7,5x17 ET35 5x98 foro 58,1", "17x7.5 ET35 5x98 CB58.1"),
        ("velg 7x16 ET40 5x108 naaf 63,4", "16x7 ET40 5x108 CB63.4"),
        ("felga aluminiowa 7x16 ET45 5x108 otwór 63,4", "16x7 ET45 5x108 CB63.4"),
        ("fälg 7x17 ET45 5x108 nav 65,1", "17x7 ET45 5x108 CB65.1"),
        ("llanta 7x16 ET40 5x100 buje 57,1", "16x7 ET40 5x100 CB57.1"),
        ("roda 7x17 ET40 5x100 furo 57,1", "17x7 ET40 5x100 CB57.1"),
        ("ホイール 18x8.5J +45 5H PCD114.3", "18x8.5 ET45 5x114.3"),
        ("18×9.5J インセット +22 5穴 114.3", "18x9.5 ET22 5x114.3"),
        ("Tarvos T9 18x8.5 ET35", "18x8.5 ET35"),
        ("Model 5 17x7.5 ET40", "17x7.5 ET40"),
        ("GT-7 18x9 +35 5x112", "18x9 ET35 5x112"),
        ("18x9 +35 5x112 GT7", "18x9 ET35 5x112"),
        ("18x8.5 EТ35", "18x8.5 ET35"),
        ("seventeen by seven and a half plus forty five", "17x7.5 ET45"),
        ("sixteen by seven minus five", "16x7 ET-5"),
        ("twenty by ten negative eighteen", "20x10 ET-18"),
        ("18x8.5 ET 35 5x112 $249", "18x8.5 ET35 5x112"),
        ("18x8.5 ET35 5x112 229,90 €", "18x8.5 ET35 5x112"),
        ("18x8.5 os35", "18x8.5 ET35"),
        ("18x8.5 offset thirty five", "18x8.5 ET35"),
        ("Diameter: 18 Width: 8.5 Offset: 35 PCD: 5x112 CB: 66.6", "18x8.5 ET35 5x112 CB66.6"),
        ("size 18x8.5, offset +35, bolt pattern 5x112, center bore 66.6", "18x8.5 ET35 5x112 CB66.6"),
        ("18x8.5+35 5x112+5x114.3", "18x8.5 ET35 5x112/114.3"),
        ("20x9 ET-12 8x6.5\"", "20x9 ET-12 8x165.1"),
        ("26x10 +30 6x139.7", "26x10 ET30 6x139.7"),
        ("28x10 -44", "28x10 ET-44"),
        ("15x6.5 4x100 ET38 54.1 CB", "15x6.5 ET38 4x100 CB54.1"),
        ("18x8.5 CB 66.56 ET35", "18x8.5 ET35 CB66.56"),
        ("18x8.5 ET35 66.6mm bore 5x112", "18x8.5 ET35 5x112 CB66.6"),
    ] {
        let read = read_wheel(text).unwrap_or_else(|error| panic!("{text:?} was refused: {error}"));
        assert_eq!(read.part.to_string(), canonical, "{text:?}");
        assert_eq!(canonical.parse(), Ok(read.part), "{canonical:?} must read as itself");
    }
}

#[test]
fn setups_in_all_sorts_of_texts() {
    for (text, canonical) in [
        (
            "18x8 ET45 225/40R18 20mm spacers at the rear",
            "F: 18x8 ET45 · 225/40R18  R: 18x8 ET45 · 225/40R18 · 20 mm spacer",
        ),
        (
            "18x8 ET45 225/40R18, 10mm front and 15mm rear spacers",
            "F: 18x8 ET45 · 225/40R18 · 10 mm spacer  R: 18x8 ET45 · 225/40R18 · 15 mm spacer",
        ),
        (
            "18x8 ET45 225/40R18 10mm front spacers",
            "F: 18x8 ET45 · 225/40R18 · 10 mm spacer  R: 18x8 ET45 · 225/40R18",
        ),
        (
            "18x8 ET45 225/40R18 rear spacers 15mm",
            "F: 18x8 ET45 · 225/40R18  R: 18x8 ET45 · 225/40R18 · 15 mm spacer",
        ),
        (
            "rear spacers 15 mm; 18x8 ET45 225/40R18",
            "F: 18x8 ET45 · 225/40R18  R: 18x8 ET45 · 225/40R18 · 15 mm spacer",
        ),
        ("18x8 ET45 225/40R18 + 5mm spacers all round", "18x8 ET45 · 225/40R18 · 5 mm spacer"),
        (
            "18x8 ET45 225/40R18 15mm spacers front, 20mm spacers rear",
            "F: 18x8 ET45 · 225/40R18 · 15 mm spacer  R: 18x8 ET45 · 225/40R18 · 20 mm spacer",
        ),
        (
            "5/10mm spacers 18x8 ET45 225/40R18",
            "F: 18x8 ET45 · 225/40R18 · 5 mm spacer  R: 18x8 ET45 · 225/40R18 · 10 mm spacer",
        ),
        ("18x8 ET45 225/40R18 no spacers", "18x8 ET45 · 225/40R18"),
        ("18x8 ET45 225/40R18 0 mm spacer", "18x8 ET45 · 225/40R18"),
        ("18x8 ET45 225/40R18 spacers: none", "18x8 ET45 · 225/40R18"),
        ("18x8 ET45 225/40R18 20mm spacer per side", "18x8 ET45 · 225/40R18 · 20 mm spacer"),
        (
            "front: 19x8.5 ET30, 235/35R19; rear: 19x9.5 ET35, 265/30R19",
            "F: 19x8.5 ET30 · 235/35R19  R: 19x9.5 ET35 · 265/30R19",
        ),
        (
            "FRONT 19x8.5+30 235/35R19 REAR 19x9.5+35 265/30R19",
            "F: 19x8.5 ET30 · 235/35R19  R: 19x9.5 ET35 · 265/30R19",
        ),
        (
            "19x8.5+30 w/ 235/35R19 up front and 19x9.5+35 w/ 265/30R19 out back",
            "F: 19x8.5 ET30 · 235/35R19  R: 19x9.5 ET35 · 265/30R19",
        ),
        (
            "19x8.5 ET30 235/35R19 (front), 19x9.5 ET35 265/30R19 (rear)",
            "F: 19x8.5 ET30 · 235/35R19  R: 19x9.5 ET35 · 265/30R19",
        ),
        (
            "235/35R19 & 265/30R19 on 19x8.5 ET30 & 19x9.5 ET35",
            "F: 19x8.5 ET30 · 235/35R19  R: 19x9.5 ET35 · 265/30R19",
        ),
        ("19x8.5 ET30 / 19x9.5 ET35", "F: 19x8.5 ET30  R: 19x9.5 ET35"),
        ("225/45R17 + 255/40R17", "F: 225/45R17  R: 255/40R17"),
        (
            "VA: 8x18 ET45 225/40 R18, HA: 9x18 ET40 255/35 R18",
            "F: 18x8 ET45 · 225/40R18  R: 18x9 ET40 · 255/35R18",
        ),
        ("V: 225/40R18 H: 255/35R18", "F: 225/40R18  R: 255/35R18"),
        ("AV: 225/40 R18 AR: 255/35 R18", "F: 225/40R18  R: 255/35R18"),
        ("ant. 225/40R18 post. 255/35R18", "F: 225/40R18  R: 255/35R18"),
        ("delante 225/40R18 detrás 255/35R18", "F: 225/40R18  R: 255/35R18"),
        ("davanti 225/40R18 dietro 255/35R18", "F: 225/40R18  R: 255/35R18"),
        ("framme 225/40R18 bak 255/35R18", "F: 225/40R18  R: 255/35R18"),
        ("przód 225/40R18 tył 255/35R18", "F: 225/40R18  R: 255/35R18"),
        ("225/40R18 vorne, 255/35R18 hinten", "F: 225/40R18  R: 255/35R18"),
        (
            "8x18 ET45 mit 225/40R18 und 15 mm Spurplatten hinten",
            "F: 18x8 ET45 · 225/40R18  R: 18x8 ET45 · 225/40R18 · 15 mm spacer",
        ),
        ("18x9 ET30 255/35R18 camber -3 / -2", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 at 34 psi front 32 rear", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 on a 2019 wagon", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 lowered 1.2\"", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 with 25mm drop", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18, 330mm brakes", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 fitted 12/05/2023", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 10 mm from fender", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 rubs 3mm at the liner", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 1500 EUR", "18x9 ET30 · 255/35R18"),
        ("18x9 ET30 255/35R18 call 0170-5551234", "18x9 ET30 · 255/35R18"),
        ("Set of four 18x8 ET45 with 225/40R18 92Y XL, 1200 km old", "18x8 ET45 · 225/40R18 92Y XL"),
        ("18x8.5 ET35 | 5x112 | 66.6 | 245/40R18", "18x8.5 ET35 5x112 CB66.6 · 245/40R18"),
        ("245/40R18 97Y, 18x8.5 ET35", "18x8.5 ET35 · 245/40R18 97Y"),
        ("245/40 on 18x8.5 ET35", "18x8.5 ET35 · 245/40R18"),
        ("245/40R18 on 8.5s ET35", "18x8.5 ET35 · 245/40R18"),
        (
            "18x8.5 ET35 with 245/40 tires and 10mm spacers rear",
            "F: 18x8.5 ET35 · 245/40R18  R: 18x8.5 ET35 · 245/40R18 · 10 mm spacer",
        ),
        (
            "18x8.5 ET35 all round, 235/40R18 front, 265/35R18 rear",
            "F: 18x8.5 ET35 · 235/40R18  R: 18x8.5 ET35 · 265/35R18",
        ),
        ("square 18x9.5 ET22 265/35R18", "18x9.5 ET22 · 265/35R18"),
        (
            "18x9.5 ET22 265/35R18 square, rear 5 mm spacer",
            "F: 18x9.5 ET22 · 265/35R18  R: 18x9.5 ET22 · 265/35R18 · 5 mm spacer",
        ),
        ("19x8.5 ET35 front and 19x9.5 rear", "F: 19x8.5 ET35  R: 19x9.5"),
        ("front 18x8 ET45 225/40R18", "F: 18x8 ET45 · 225/40R18"),
        ("F: 18x8 ET45\nR: 18x9 ET40", "F: 18x8 ET45  R: 18x9 ET40"),
        ("18x8 ET45 225/40R18\n18x9 ET40 255/35R18", "F: 18x8 ET45 · 225/40R18  R: 18x9 ET40 · 255/35R18"),
        ("18x8 ET45\n225/40R18", "18x8 ET45 · 225/40R18"),
        (
            "eighteen by nine and a half plus thirty eight with two sixty five thirty five eighteen",
            "18x9.5 ET38 · 265/35R18",
        ),
        ("front eighteen by eight and a half rear eighteen by nine and a half", "F: 18x8.5  R: 18x9.5"),
        ("18x8 ET45 225/40R18 DOT 4519", "18x8 ET45 · 225/40R18 · DOT 4519"),
        ("18x8 ET45 225/40R18 KW 45/2019", "18x8 ET45 · 225/40R18 · DOT 4519"),
        (
            "15x10 -38 26.0/10.0-15 rear, 15x3.5 26.0/4.0-15 front",
            "F: 15x3.5 · 26.0/4.0-15  R: 15x10 ET-38 · 26.0/10.0-15",
        ),
        ("15x8 ET0 LT235/75R15 6PR", "15x8 ET0 · LT235/75R15 LR C"),
        ("R: 18x9.5 ET40", "R: 18x9.5 ET40"),
        ("18x8 ET45 225/40R18 rear: 255/35R18", "F: 18x8 ET45 · 225/40R18  R: 18x8 ET45 · 255/35R18"),
        (
            "18x8 ET45 225/40R18, rear 18x9 ET40 255/35R18",
            "F: 18x8 ET45 · 225/40R18  R: 18x9 ET40 · 255/35R18",
        ),
        ("Hallo, brauche 4 Reifen 225/40 R18 92Y XL auf 8x18 ET45, danke", "18x8 ET45 · 225/40R18 92Y XL"),
        ("Bonjour, jantes 8x18 ET45 et pneus 225/40 R18", "18x8 ET45 · 225/40R18"),
        ("18x8 ET45, CB57.1, tires 225/40 ZR18 XL", "18x8 ET45 CB57.1 · 225/40ZR18 XL"),
        ("8x18 5x112 ET45 57,1 225/40R18", "18x8 ET45 5x112 CB57.1 · 225/40R18"),
    ] {
        let reading = line::read(text).unwrap();
        if let Some(fault) = reading.first_fault(text) {
            panic!("{text:?} was refused: {fault}");
        }
        assert_eq!(reading.setups.unwrap().to_string(), canonical, "{text:?}");
    }
}

#[test]
fn what_could_be_something_else_is_asked_or_refused() {
    for text in [
        "8.25-20",
        "T125/70D15",
        "T155/80R17",
        "ST 175/80 R13",
        "120/70-17",
        "160/60ZR17 69W",
        "200/55ZR17",
        "140/80R18 M/C",
        "165/65R365",
        "11R22.5",
        "225/45R1 7",
        "225/4SR17",
        "225/45R17 94VV",
        "225/45R17 9IW",
        "45/225R17",
        "225/45R71",
        "225/45R17 85",
        "225/45R17 94",
        "33",
        "245",
        "225/45R17 94W 225/50R17",
        "205/55 R16 91H / 225/45 R17 94W",
    ] {
        assert!(read_tire(text).is_err(), "{text:?} was read");
    }
    for text in [
        "18x8 H2 -35",
        "8x18EH2+ -35",
        "18x8.5 5x114.3 64",
        "18x18 ET35",
        "18x8x35",
        "18x8.5x35",
        "I8x8.5 ET35",
        "18x8.S ET35",
        "18x8.5 E735",
        "18x8.5 ET4O",
        "18x8.5 ET35 5xll2",
        "1885 ET35",
        "18x8.5 ET35-38",
        "18x8.5 ET35/38",
        "18x8.5 +35 or +45",
        "8.5 ET35",
        "112",
        "ET35",
    ] {
        assert!(read_wheel(text).is_err(), "{text:?} was read");
    }
    for text in [
        "18x8 ET45 225/40R18 -5 mm spacer",
        "18x8 ET45 225/40R18 30mm per axle spacers",
        "19x9.5 ET35 / 19x8.5 ET30",
        "19x8.5 ET30 and 19x9.5 ET35",
        "225/45R17 or 235/45R17",
        "225/45R17, 255/40R17",
        "225/45R17 255/40R17",
        "8x18 ET45 225/40R18 Spurverbreiterung 20 mm pro Achse",
        "18x9 ET30 255/35R18 5 mm rear",
        "18x9 ET30 255/35R18 20mm",
        "17x9 -12 285/70R17 with 2 inch lift and 33s",
        "18x8.5; ET35; 5x112; CB66.6; 245/40R18 97Y XL; 8 mm",
        "staggered 18x8.5 ET35 18x9.5 ET40",
        "18x8 ET45 225/40R18 3mm+5mm spacers",
        "ET45 18x8 225/40R18 front 5mm",
    ] {
        assert!(line::read(text).unwrap().setups.is_none(), "{text:?} was read");
    }
}

#[test]
fn an_answered_question_is_read() {
    for text in [
        "18x8.5 5x114.3 64",
        "7Jx17CH-45 5x108",
        "18x8 ET45 225/40R18 40 mm spacers in total",
        "18x8 ET45 225/40R18 with spacers",
        "18x8 ET45 225/40R18 -5 mm spacer",
        "18x9 +30, 255/35/18, 5mm",
        "8.5x19 H2 ET 35-40",
        "22x10-15",
    ] {
        let reading = line::read(text).unwrap();
        let open = reading.segments.iter().find(|segment| segment.outcome.is_err()).expect(text);
        let choices = open.outcome.as_ref().unwrap_err().choices().expect(text).to_vec();
        assert!(!choices.is_empty(), "{text:?}");
        for choice in choices {
            let answered = format!("{} {choice} {}", &text[..open.span.start], &text[open.span.end..]);
            let reading = line::read(&answered).unwrap();
            assert!(reading.setups.is_some(), "{answered:?}: {:?}", reading.first_fault(&answered));
        }
    }
}
