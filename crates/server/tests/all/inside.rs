//! What the API cannot show by itself: hints to the browser, allowed hosts, faults in words, and changes merged.

mod embed {
    use ready_slab_server::embed::{built, hints, is_built, modules_of};

    #[test]
    fn an_address_names_the_scripts_it_needs() {
        assert_eq!(modules_of("jobs/12"), ["src/stations/order/Order.tsx"]);
        assert_eq!(modules_of("jobs/1/oven"), ["src/stations/oven/first.ts"]);
        assert_eq!(modules_of("jobs/1/oven/levers"), ["src/stations/oven/first.ts", "src/stations/oven/views.ts"]);
        assert_eq!(modules_of("kitchen/oven"), ["src/kitchen/OvenPage.tsx"]);
        assert!(modules_of("nothing/of/the/kind").is_empty());
    }

    /// Where the front end was built, every script that is named is there.
    #[test]
    fn what_is_named_is_built() {
        if !is_built() {
            return;
        }
        let pages = ["", "live", "pantry", "read", "kitchen", "kitchen/oven"].map(str::to_owned);
        let stations = [
            "order",
            "dough",
            "cold",
            "shape",
            "oven",
            "clock",
            "ledger",
            "dough/mix",
            "cold/now",
            "shape/nest",
            "oven/levers",
        ];
        for path in pages.into_iter().chain(stations.map(|s| format!("jobs/1/{s}"))) {
            let links = hints(&path).unwrap_or_else(|| panic!("{path}"));
            for key in modules_of(&path) {
                let file = built(key).unwrap_or_else(|| panic!("{path}: {key}"));
                assert!(links.contains(&format!("</{file}>; rel=modulepreload")), "{path}: {links}");
            }
        }
    }
}

mod guard {
    use ready_slab_server::guard::AllowedHosts;

    #[test]
    fn only_known_names_are_allowed_with_any_port() {
        let hosts = AllowedHosts::new(&["Bench.local".to_owned()]);
        for good in ["localhost", "localhost:8080", "127.0.0.1:1", "[::1]:9", "bench.local:80"] {
            assert!(hosts.allows(good), "{good}");
        }
        for bad in ["evil.test", "localhost.evil.test", "", ":80", "127.0.0.1.nip.test:80"] {
            assert!(!hosts.allows(bad), "{bad}");
        }
    }
}

mod problem {
    use ready_slab_server::problem::field_fault;

    fn said(path: &str, message: &str) -> (String, String) {
        let problem = field_fault(path, message).problem();
        (problem.errors[0].field.clone(), problem.errors[0].message.clone())
    }

    #[test]
    fn what_a_reader_says_is_told_in_words_of_a_kitchen() {
        for (path, message, field, words) in [
            (
                "liner",
                "unknown variant `none`, expected one of `parchment`, `bare`",
                "liner",
                "Use one of \u{201c}parchment\u{201d}, \u{201c}bare\u{201d}, not \u{201c}none\u{201d}.",
            ),
            ("making", "missing field `thickness_mm` at line 1 column 9", "making.thickness_mm", "Add a value."),
            (
                ".",
                "unknown field `peices`, expected one of `pieces`, `name`",
                "peices",
                "No such field. Did you mean \u{201c}pieces\u{201d}?",
            ),
            (
                "pieces",
                "invalid type: string \"many\", expected u32",
                "pieces",
                "Use a whole number, 0 or more, not \"many\".",
            ),
            ("lines[2].grams", "invalid type: null, expected f64", "lines[2].grams", "Use a number, not nothing."),
        ] {
            let (f, m) = said(path, message);
            assert_eq!((f.as_str(), m.as_str()), (field, words));
        }
    }
}

mod revise {
    use ready_slab_server::problem::ApiError;
    use ready_slab_server::revise::{Base, merged};
    use serde::{Deserialize, Serialize};
    use serde_json::{Map, Value, json};

    #[derive(Debug, PartialEq, Serialize, Deserialize)]
    struct Sheet {
        pieces: u32,
        thickness_mm: f64,
    }

    fn patch(value: Value) -> Map<String, Value> {
        value.as_object().unwrap().clone()
    }

    #[test]
    fn different_fields_are_merged_and_the_same_one_is_asked_about() {
        let (older, now) = (Sheet { pieces: 48, thickness_mm: 6.0 }, Sheet { pieces: 60, thickness_mm: 6.0 });
        let base = Base::Older(older);
        let (both, changed) = merged(patch(json!({"thickness_mm": 8.0})), &now, &base, 3).unwrap();
        assert_eq!((both, changed.len()), (Sheet { pieces: 60, thickness_mm: 8.0 }, 1));
        let Err(ApiError::Stale { fields, current, revision }) = merged(patch(json!({"pieces": 24})), &now, &base, 3)
        else {
            panic!("two hands on one field")
        };
        assert_eq!((fields[0].was.clone(), fields[0].is.clone()), (Some(json!(48)), json!(60)));
        assert_eq!((current["pieces"].clone(), revision), (json!(60), 3));
        // Also where both wanted the same: who counts by reading and writing back hears of every other one.
        assert!(merged(patch(json!({"pieces": 60})), &now, &base, 3).is_err());
    }

    #[test]
    fn a_change_from_a_forgotten_revision_is_asked_about_field_by_field() {
        let now = Sheet { pieces: 60, thickness_mm: 6.0 };
        assert!(merged(patch(json!({"pieces": 24})), &now, &Base::Unknown, 90).is_err());
        assert!(merged(patch(json!({"pieces": 60})), &now, &Base::Unknown, 90).is_err());
    }
}
