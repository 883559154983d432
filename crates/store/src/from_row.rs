//! Rows by the names of their fields: what a derive would write, without the crate that compiles SQLite a second time for it.

/// A struct that is read from a row, a column for every field.
macro_rules! row {
    ($(#[$about:meta])* $seen:vis struct $name:ident {
        $($(#[$of:meta])* $open:vis $field:ident: $kind:ty,)*
    }) => {
        $(#[$about])* $seen struct $name { $($(#[$of])* $open $field: $kind,)* }

        impl<'r> sqlx::FromRow<'r, sqlx::sqlite::SqliteRow> for $name {
            fn from_row(row: &'r sqlx::sqlite::SqliteRow) -> Result<Self, sqlx::Error> {
                use sqlx::Row as _;
                Ok(Self { $($field: row.try_get(stringify!($field))?,)* })
            }
        }
    };
}

pub(crate) use row;
