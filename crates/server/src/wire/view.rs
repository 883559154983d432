//! What is sent is written once: each field with what it says, its type and where its value comes from.

/// A view, and how it is made of what the core answered: with `From` when it needs one thing only, else with `new`.
///
/// ```text
/// view! {
///     /// How a piece cools.
///     pub struct CoolingView(c: &Cooling) {
///         let lifts = c.lifts_after;
///
///         /// Until it can be lifted.
///         lifts_after_min: Option<f64> = lifts.map(Span::min),
///     }
/// }
/// ```
macro_rules! view {
    (
        $(#[$of_it:meta])*
        pub struct $name:ident($given:ident: $from:ty) {
            $(let $before:pat = $is:expr;)*
            $($(#[$of_field:meta])+ $field:ident: $type:ty = $value:expr,)*
        }
    ) => {
        $(#[$of_it])*
        #[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
        pub struct $name {
            $($(#[$of_field])* pub $field: $type,)*
        }

        impl From<$from> for $name {
            fn from($given: $from) -> Self {
                $(let $before = $is;)*
                Self { $($field: $value,)* }
            }
        }
    };
    (
        $(#[$of_it:meta])*
        pub struct $name:ident($($given:ident: $from:ty),* $(,)?) {
            $(let $before:pat = $is:expr;)*
            $($(#[$of_field:meta])+ $field:ident: $type:ty = $value:expr,)*
        }
    ) => {
        $(#[$of_it])*
        #[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
        pub struct $name {
            $($(#[$of_field])* pub $field: $type,)*
        }

        impl $name {
            /// As it is sent.
            pub fn new($($given: $from),*) -> Self {
                $(let $before = $is;)*
                Self { $($field: $value,)* }
            }
        }
    };
}

pub(in crate::wire) use view;
