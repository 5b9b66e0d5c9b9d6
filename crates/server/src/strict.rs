//! JSON bodies as they are described: an object is an object.
//!
//! Serde reads a struct from an array of its fields as well, so `[null, null]` would be a job or a fit. Here every struct,
//! however deep, is read as a map.

use std::fmt;

use serde::de::{
    DeserializeSeed, Deserializer, EnumAccess, Error, MapAccess, SeqAccess, VariantAccess, Visitor,
};

/// A deserializer whose structs are objects only.
#[derive(Debug)]
pub(crate) struct ObjectsOnly<D>(pub(crate) D);

macro_rules! passed_on {
    ($($method:ident($($argument:ident: $kind:ty),*);)*) => {
        $(fn $method<V: Visitor<'de>>(self, $($argument: $kind,)* visitor: V) -> Result<V::Value, D::Error> {
            self.0.$method($($argument,)* Seen(visitor))
        })*
    };
}

impl<'de, D: Deserializer<'de>> Deserializer<'de> for ObjectsOnly<D> {
    type Error = D::Error;

    fn deserialize_struct<V: Visitor<'de>>(
        self,
        _name: &'static str,
        _fields: &'static [&'static str],
        visitor: V,
    ) -> Result<V::Value, D::Error> {
        self.0.deserialize_map(Seen(visitor))
    }

    passed_on! {
        deserialize_any(); deserialize_bool(); deserialize_i8(); deserialize_i16(); deserialize_i32();
        deserialize_i64(); deserialize_i128(); deserialize_u8(); deserialize_u16(); deserialize_u32();
        deserialize_u64(); deserialize_u128(); deserialize_f32(); deserialize_f64(); deserialize_char();
        deserialize_str(); deserialize_string(); deserialize_bytes(); deserialize_byte_buf();
        deserialize_option(); deserialize_unit(); deserialize_seq(); deserialize_map();
        deserialize_identifier(); deserialize_ignored_any();
        deserialize_unit_struct(name: &'static str);
        deserialize_newtype_struct(name: &'static str);
        deserialize_tuple(length: usize);
        deserialize_tuple_struct(name: &'static str, length: usize);
        deserialize_enum(name: &'static str, variants: &'static [&'static str]);
    }

    fn is_human_readable(&self) -> bool {
        self.0.is_human_readable()
    }
}

/// A visitor, seed or access whose inner deserializers are strict as well.
struct Seen<T>(T);

macro_rules! visited {
    ($($method:ident: $kind:ty),* $(,)?) => {
        $(fn $method<E: Error>(self, value: $kind) -> Result<V::Value, E> {
            self.0.$method(value)
        })*
    };
}

impl<'de, V: Visitor<'de>> Visitor<'de> for Seen<V> {
    type Value = V::Value;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.0.expecting(f)
    }

    visited! {
        visit_bool: bool, visit_i8: i8, visit_i16: i16, visit_i32: i32, visit_i64: i64, visit_i128: i128,
        visit_u8: u8, visit_u16: u16, visit_u32: u32, visit_u64: u64, visit_u128: u128, visit_f32: f32,
        visit_f64: f64, visit_char: char, visit_str: &str, visit_borrowed_str: &'de str, visit_string: String,
        visit_bytes: &[u8], visit_borrowed_bytes: &'de [u8], visit_byte_buf: Vec<u8>,
    }

    fn visit_none<E: Error>(self) -> Result<V::Value, E> {
        self.0.visit_none()
    }

    fn visit_unit<E: Error>(self) -> Result<V::Value, E> {
        self.0.visit_unit()
    }

    fn visit_some<D: Deserializer<'de>>(self, inner: D) -> Result<V::Value, D::Error> {
        self.0.visit_some(ObjectsOnly(inner))
    }

    fn visit_newtype_struct<D: Deserializer<'de>>(self, inner: D) -> Result<V::Value, D::Error> {
        self.0.visit_newtype_struct(ObjectsOnly(inner))
    }

    fn visit_seq<A: SeqAccess<'de>>(self, inner: A) -> Result<V::Value, A::Error> {
        self.0.visit_seq(Seen(inner))
    }

    fn visit_map<A: MapAccess<'de>>(self, inner: A) -> Result<V::Value, A::Error> {
        self.0.visit_map(Seen(inner))
    }

    fn visit_enum<A: EnumAccess<'de>>(self, inner: A) -> Result<V::Value, A::Error> {
        self.0.visit_enum(Seen(inner))
    }
}

impl<'de, S: DeserializeSeed<'de>> DeserializeSeed<'de> for Seen<S> {
    type Value = S::Value;

    fn deserialize<D: Deserializer<'de>>(self, inner: D) -> Result<S::Value, D::Error> {
        self.0.deserialize(ObjectsOnly(inner))
    }
}

impl<'de, A: SeqAccess<'de>> SeqAccess<'de> for Seen<A> {
    type Error = A::Error;

    fn next_element_seed<S: DeserializeSeed<'de>>(&mut self, seed: S) -> Result<Option<S::Value>, A::Error> {
        self.0.next_element_seed(Seen(seed))
    }

    fn size_hint(&self) -> Option<usize> {
        self.0.size_hint()
    }
}

impl<'de, A: MapAccess<'de>> MapAccess<'de> for Seen<A> {
    type Error = A::Error;

    fn next_key_seed<S: DeserializeSeed<'de>>(&mut self, seed: S) -> Result<Option<S::Value>, A::Error> {
        self.0.next_key_seed(Seen(seed))
    }

    fn next_value_seed<S: DeserializeSeed<'de>>(&mut self, seed: S) -> Result<S::Value, A::Error> {
        self.0.next_value_seed(Seen(seed))
    }

    fn size_hint(&self) -> Option<usize> {
        self.0.size_hint()
    }
}

impl<'de, A: EnumAccess<'de>> EnumAccess<'de> for Seen<A> {
    type Error = A::Error;
    type Variant = Seen<A::Variant>;

    fn variant_seed<S: DeserializeSeed<'de>>(self, seed: S) -> Result<(S::Value, Self::Variant), A::Error> {
        self.0.variant_seed(Seen(seed)).map(|(value, variant)| (value, Seen(variant)))
    }
}

impl<'de, A: VariantAccess<'de>> VariantAccess<'de> for Seen<A> {
    type Error = A::Error;

    fn unit_variant(self) -> Result<(), A::Error> {
        self.0.unit_variant()
    }

    fn newtype_variant_seed<S: DeserializeSeed<'de>>(self, seed: S) -> Result<S::Value, A::Error> {
        self.0.newtype_variant_seed(Seen(seed))
    }

    fn tuple_variant<V: Visitor<'de>>(self, length: usize, visitor: V) -> Result<V::Value, A::Error> {
        self.0.tuple_variant(length, Seen(visitor))
    }

    fn struct_variant<V: Visitor<'de>>(
        self,
        fields: &'static [&'static str],
        visitor: V,
    ) -> Result<V::Value, A::Error> {
        self.0.struct_variant(fields, Seen(visitor))
    }
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeMap;

    use serde::Deserialize;

    use super::*;

    #[derive(Debug, PartialEq, Deserialize)]
    struct Outer {
        inner: Vec<Inner>,
        #[serde(default)]
        by_name: BTreeMap<String, Option<Inner>>,
    }

    #[derive(Debug, PartialEq, Deserialize)]
    struct Inner {
        a: Option<f64>,
        point: [f64; 2],
    }

    #[test]
    fn an_array_is_no_object_however_deep() {
        let read =
            |text: &str| Outer::deserialize(ObjectsOnly(&mut serde_json::Deserializer::from_str(text)));
        assert!(
            read(r#"{"inner":[{"a":null,"point":[1,2]}],"by_name":{"x":{"a":1,"point":[0,0]}}}"#).is_ok()
        );
        for text in ["[[],{}]", r#"{"inner":[[null,[1,2]]]}"#, r#"{"inner":[],"by_name":{"x":[1,[0,0]]}}"#] {
            assert!(read(text).unwrap_err().to_string().contains("invalid type: sequence"), "{text}");
        }
    }
}
