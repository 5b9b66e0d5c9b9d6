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
    };
}

pub(crate) use coded;
