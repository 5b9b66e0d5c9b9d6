//! What a column can mean.

use std::collections::BTreeMap;

use crate::table::Table;

/// Wheels or tires.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Kind {
    /// Wheels.
    Wheels,
    /// Tires.
    Tires,
}

impl Kind {
    /// Its code.
    pub fn code(self) -> &'static str {
        match self {
            Self::Wheels => "wheels",
            Self::Tires => "tires",
        }
    }

    /// The one of this code.
    pub fn from_code(code: &str) -> Option<Self> {
        [Self::Wheels, Self::Tires].into_iter().find(|kind| kind.code() == code)
    }
}

macro_rules! fields {
    ($($variant:ident, $code:literal, $title:literal, $wheels:literal, $tires:literal, [$($heading:literal),*];)+) => {
        /// What a column means.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
        #[allow(missing_docs, reason = "the fields by their names; see title")]
        pub enum Field {
            $($variant,)+
        }

        impl Field {
            /// All of them, in the order they are exported.
            pub const ALL: &'static [Self] = &[$(Self::$variant),+];

            /// Its code, which is also its heading in exported lists.
            pub fn code(self) -> &'static str {
                match self { $(Self::$variant => $code,)+ }
            }

            /// The field of a code.
            pub fn from_code(code: &str) -> Option<Self> {
                match code {
                    $($code => Some(Self::$variant),)+
                    _ => None,
                }
            }

            /// Its name.
            pub fn title(self) -> &'static str {
                match self { $(Self::$variant => $title,)+ }
            }

            /// Whether a kind of row has it.
            pub fn is_of(self, kind: Kind) -> bool {
                match (self, kind) { $((Self::$variant, Kind::Wheels) => $wheels, (Self::$variant, Kind::Tires) => $tires,)+ }
            }

            /// Headings by which it is recognised, plain letters and figures only.
            fn headings(self) -> &'static [&'static str] {
                match self { $(Self::$variant => &[$($heading),*],)+ }
            }
        }
    };
}

fields! {
    Article, "article", "article number", true, true, ["article", "articleno", "articlenumber", "sku", "partno", "partnumber", "itemno", "item", "code", "ean"];
    Line, "line", "line or design", true, true, ["line", "design", "model", "pattern", "name", "series"];
    Notation, "notation", "whole setup in one cell", true, true, ["notation", "description", "setup", "text", "designation"];
    Size, "size", "size", true, true, ["size", "dimension", "dimensions"];
    Diameter, "diameter_in", "rim diameter, in", true, true, ["diameterin", "diameter", "dia", "rim", "rimdiameter", "inch"];
    Width, "width_in", "rim width, in", true, false, ["widthin", "width", "rimwidth", "j"];
    Offset, "offset_mm", "offset, mm", true, false, ["offsetmm", "offset", "et", "inset", "is"];
    BoltCircle, "bolt_circle", "bolt circles", true, false, ["boltcircle", "boltcircles", "pcd", "boltpattern", "lk", "drilling"];
    Bore, "bore_mm", "center bore, mm", true, false, ["boremm", "bore", "centerbore", "centrebore", "cb", "hubbore"];
    Seat, "seat", "seat", true, false, ["seat", "seating", "boltseat"];
    WheelLoad, "load_kg", "load rating, kg", true, false, ["loadkg", "load", "loadrating", "maxload", "wheelload"];
    Make, "construction", "construction", true, false, ["construction", "process", "made"];
    Finish, "finish", "finish", true, false, ["finish", "colour", "color"];
    OverallWidth, "overall_width_mm", "width over all, mm", true, false, ["overallwidthmm", "overallwidth"];
    Service, "service", "load index and speed symbol", false, true, ["service", "servicedescription", "loadspeed", "lisi", "index"];
    TireKind, "kind", "kind of tire", false, true, ["kind", "type", "category", "season", "use"];
    Section, "section_mm", "measured section, mm", false, true, ["sectionmm", "section", "sectionwidth", "measuredsection"];
    Tread, "tread_mm", "tread width, mm", false, true, ["treadmm", "tread", "treadwidth"];
    OverallDiameter, "overall_diameter_mm", "measured diameter, mm", false, true, ["overalldiametermm", "overalldiameter", "od"];
    RimLeast, "rim_min_in", "narrowest rim, in", false, true, ["rimminin", "rimmin", "minrim", "rimfrom"];
    RimMost, "rim_max_in", "widest rim, in", false, true, ["rimmaxin", "rimmax", "maxrim", "rimto"];
    MeasuringRim, "measuring_rim_in", "measuring rim, in", false, true, ["measuringrimin", "measuringrim", "designrim"];
    Void, "void_pct", "void, %", false, true, ["voidpct", "void"];
    Treadwear, "treadwear", "treadwear grade", false, true, ["treadwear", "tw", "utqg"];
    WetGrade, "wet_grade", "wet or traction grade", false, true, ["wetgrade", "wet", "traction"];
    TemperatureGrade, "temperature_grade", "temperature grade", false, true, ["temperaturegrade", "temperature"];
    FactoryMark, "factory_mark", "factory mark", false, true, ["factorymark", "oemark", "homologation", "mark"];
    RimGuard, "rim_guard", "rim guard", false, true, ["rimguard", "rimprotection", "rimprotector", "protectiveband"];
    Asymmetric, "asymmetric", "asymmetric", false, true, ["asymmetric", "asymmetrical"];
    Directional, "directional", "turning direction", true, true, ["directional", "direction", "rotation"];
    Mass, "mass_kg", "mass, kg", true, true, ["masskg", "mass", "weight", "weightkg", "kg"];
    Price, "price", "price", true, true, ["price", "net", "netprice", "dealerprice", "cost"];
    Stock, "stock", "stock", true, true, ["stock", "qty", "quantity", "avail", "available", "availability", "pieces"];
}

impl Field {
    /// Whether it holds a figure.
    pub fn is_a_number(self) -> bool {
        !matches!(
            self,
            Self::Article
                | Self::Line
                | Self::Notation
                | Self::Size
                | Self::BoltCircle
                | Self::Seat
                | Self::Make
                | Self::Finish
                | Self::Service
                | Self::TireKind
                | Self::WetGrade
                | Self::TemperatureGrade
                | Self::FactoryMark
                | Self::RimGuard
                | Self::Asymmetric
                | Self::Directional
        )
    }
}

/// Which column is which field.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Mapping(pub BTreeMap<Field, usize>);

/// A heading in small letters and figures alone, and the same without the units that it names: "Max load (lbs)".
fn plain_heading(heading: &str) -> [String; 2] {
    const UNITS: [&str; 12] =
        ["kg", "kgs", "lb", "lbs", "mm", "in", "inch", "inches", "eur", "usd", "gbp", "chf"];
    let low = heading.to_lowercase();
    let words: Vec<&str> =
        low.split(|sign: char| !sign.is_ascii_alphanumeric()).filter(|word| !word.is_empty()).collect();
    let without: Vec<&str> = words.iter().copied().filter(|word| !UNITS.contains(word)).collect();
    [words.concat(), without.concat()]
}

/// How many headings of a line are recognised, for wheels or for tires.
pub(crate) fn recognised(line: &[String]) -> usize {
    let of = |kind| Mapping::guessed(line, kind).0.len();
    of(Kind::Wheels).max(of(Kind::Tires))
}

impl Mapping {
    /// What the headings say by themselves. A column is given to one field, the first that it names.
    pub fn guessed(header: &[String], kind: Kind) -> Self {
        let plain: Vec<[String; 2]> = header.iter().map(|heading| plain_heading(heading)).collect();
        let mut mapping = BTreeMap::new();
        let mut given = vec![false; header.len()];
        for field in Field::ALL.iter().filter(|field| field.is_of(kind)) {
            let found = field
                .headings()
                .iter()
                .find_map(|name| plain.iter().position(|heading| heading.iter().any(|one| one == name)))
                .filter(|column| !given[*column]);
            if let Some(column) = found {
                given[column] = true;
                mapping.insert(*field, column);
            }
        }
        Self(mapping)
    }

    /// With a column of sizes found by what stands in it, where no heading names one: lists are headed in many languages.
    #[must_use]
    pub fn with_sizes_found(mut self, table: &Table, kind: Kind) -> Self {
        if [Field::Size, Field::Notation, Field::Diameter].iter().any(|field| self.0.contains_key(field)) {
            return self;
        }
        let is_size = |cell: &str| match kind {
            Kind::Wheels => cell.parse::<fitment::Wheel>().is_ok(),
            Kind::Tires => cell.parse::<fitment::Tire>().is_ok(),
        };
        let looked_at = &table.rows[..table.rows.len().min(50)];
        let sizes = |column: &usize| {
            looked_at.iter().filter(|row| row.get(*column).is_some_and(|cell| is_size(cell))).count()
        };
        let free = (0..table.header.len()).filter(|column| !self.0.values().any(|given| given == column));
        if let Some(column) = free.max_by_key(sizes).filter(|column| sizes(column) * 2 > looked_at.len()) {
            self.0.insert(Field::Size, column);
        }
        self
    }

    /// By the names of columns: the same mapping fits the next list of a supplier, wherever its columns stand.
    pub fn by_names(names: &BTreeMap<String, String>, header: &[String]) -> Self {
        let column = |name: &String| header.iter().position(|heading| heading == name);
        Self(
            names
                .iter()
                .filter_map(|(field, name)| Some((Field::from_code(field)?, column(name)?)))
                .collect(),
        )
    }

    /// The same as names.
    pub fn names(&self, header: &[String]) -> BTreeMap<String, String> {
        self.0
            .iter()
            .filter_map(|(field, column)| Some((field.code().to_owned(), header.get(*column)?.clone())))
            .collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_heading_may_name_the_unit_of_its_column() {
        // Headings as lists have them; made up.
        for (kind, heading, field) in [
            (Kind::Wheels, "Max load (lbs)", Field::WheelLoad),
            (Kind::Wheels, "Load kg", Field::WheelLoad),
            (Kind::Wheels, "ET [mm]", Field::Offset),
            (Kind::Wheels, "Center bore, mm", Field::Bore),
            (Kind::Tires, "Net price EUR", Field::Price),
            (Kind::Tires, "Avail.", Field::Stock),
            (Kind::Tires, "Rim protection", Field::RimGuard),
            (Kind::Tires, "Tread width in mm", Field::Tread),
        ] {
            let mapping = Mapping::guessed(&[heading.to_owned()], kind);
            assert_eq!(mapping.0.get(&field), Some(&0), "{heading}: {mapping:?}");
        }
        // A unit alone is no heading, but for the one that names masses.
        for heading in ["mm", "lbs", "EUR", ""] {
            assert!(Mapping::guessed(&[heading.to_owned()], Kind::Wheels).0.is_empty(), "{heading}");
        }
        assert!(Mapping::guessed(&["kg".to_owned()], Kind::Wheels).0.contains_key(&Field::Mass));
    }
}
