//! Points and ids as they stand in documents.

use std::collections::BTreeMap;
use std::fmt;

use glam::{DVec2, DVec3};
use serde::{Deserialize, Serialize};
use utoipa::openapi::schema::{ArrayBuilder, KnownFormat, ObjectBuilder, SchemaFormat, Type};
use utoipa::openapi::{RefOr, Schema};
use utoipa::{PartialSchema, ToSchema};

/// Coordinates reach a little beyond the largest room (50 m), so that a misplaced thing can be named.
const COORDINATE_M: f64 = 60.0;

fn coordinates(count: usize) -> RefOr<Schema> {
    let number = ObjectBuilder::new()
        .schema_type(Type::Number)
        .format(Some(SchemaFormat::KnownFormat(KnownFormat::Double)))
        .minimum(Some(-COORDINATE_M))
        .maximum(Some(COORDINATE_M));
    ArrayBuilder::new().items(number).min_items(Some(count)).max_items(Some(count)).into()
}

macro_rules! point {
    ($(#[$doc:meta])* $name:ident, $vector:ty, $count:literal) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
        pub struct $name(pub [f64; $count]);

        impl PartialSchema for $name {
            fn schema() -> RefOr<Schema> {
                coordinates($count)
            }
        }
        impl ToSchema for $name {}

        impl From<$name> for $vector {
            fn from(point: $name) -> Self {
                Self::from_array(point.0)
            }
        }
        impl From<$vector> for $name {
            fn from(vector: $vector) -> Self {
                Self(vector.to_array())
            }
        }
    };
}

point!(
    /// A point on the floor, m.
    Point2, DVec2, 2
);
point!(
    /// A point in the room, m.
    Point3, DVec3, 3
);

macro_rules! id {
    ($(#[$doc:meta])* $name:ident, $pattern:literal) => {
        $(#[$doc])*
        #[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
        #[schema(pattern = $pattern)]
        pub struct $name(pub String);

        impl fmt::Display for $name {
            fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                f.write_str(&self.0)
            }
        }
        impl From<&str> for $name {
            fn from(text: &str) -> Self {
                Self(text.to_owned())
            }
        }
        impl std::borrow::Borrow<str> for $name {
            fn borrow(&self) -> &str {
                &self.0
            }
        }
        impl PartialEq<str> for $name {
            fn eq(&self, text: &str) -> bool {
                self.0 == text
            }
        }
        impl PartialEq<&str> for $name {
            fn eq(&self, text: &&str) -> bool {
                self.0 == *text
            }
        }
    };
}

id!(
    /// The id of a thing in a plan.
    Id, "^[a-z0-9-]{1,32}$"
);
id!(
    /// The id of a reading, as `light.key.azimuth_deg`.
    MeasuredId, "^[a-z0-9_.-]{1,80}$"
);

impl Id {
    /// In words: `side-angle` is a side angle.
    pub fn words(&self) -> String {
        self.0.replace('-', " ")
    }
}

/// A map of things by id.
pub type Things<T> = BTreeMap<Id, T>;
