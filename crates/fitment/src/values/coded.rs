//! Plain enums that are written by name on the wire and in files.

/// Gives an enum its list, its codes and the way back from a code.
macro_rules! coded {
    ($type:ident: $($variant:ident = $code:literal),+ $(,)?) => {
        impl $type {
            /// All of them, in order.
            pub const ALL: &'static [Self] = &[$(Self::$variant),+];

            /// Its code on the wire and in files.
            pub fn code(self) -> &'static str {
                match self {
                    $(Self::$variant => $code,)+
                }
            }

            /// The one of this code.
            pub fn from_code(code: &str) -> Option<Self> {
                match code {
                    $($code => Some(Self::$variant),)+
                    _ => None,
                }
            }
        }

        $crate::values::coded::coded_serde!($type);
    };
}

/// Writes and reads a type by its code, where serde is wanted.
macro_rules! coded_serde {
    ($type:ident) => {
        #[cfg(feature = "serde")]
        impl serde::Serialize for $type {
            fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
                serializer.serialize_str(self.code())
            }
        }

        #[cfg(feature = "serde")]
        impl<'de> serde::Deserialize<'de> for $type {
            fn deserialize<D: serde::Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
                let code = <String as serde::Deserialize>::deserialize(deserializer)?;
                Self::from_code(&code).ok_or_else(|| {
                    let what = stringify!($type).to_lowercase();
                    serde::de::Error::custom(format!("{what} {code:?} is not known"))
                })
            }
        }
    };
}

pub(crate) use {coded, coded_serde};
