//! No text of the program uses a word that was retired: every string of every crate is read by Rust's own syntax, so that a new one cannot slip by.

use proc_macro2::{TokenStream, TokenTree};
use regex_lite::Regex;
use std::fs;
use std::path::{Path, PathBuf};

/// Strings that are no words for people: what a browser, a database or another program reads, and names of published sources.
const NOT_SHOWN: [&str; 6] = ["SELECT ", "INSERT ", "UPDATE ", "CREATE ", "DELETE ", "formula {}, {version}"];

/// Files whose strings are names and sayings of other people's recipes, or where a figure is from.
const READ_FROM_OTHERS: [&str; 3] = ["recipe/speech.rs", "dough/pantry.rs", "units/table.rs"];

fn retired() -> Vec<(Regex, String)> {
    let text = fs::read_to_string(Path::new(env!("CARGO_MANIFEST_DIR")).join("retired.txt")).unwrap();
    let rows = text.lines().filter(|l| !l.starts_with('#') && !l.is_empty());
    rows.map(|l| {
        let (word, say) = l.split_once('\t').expect("a word, a tab, what to say");
        (Regex::new(&format!("(?i){word}")).unwrap(), say.to_owned())
    })
    .collect()
}

fn sources(of: &Path, into: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(of).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            sources(&path, into);
        } else if path.extension().is_some_and(|e| e == "rs") && !path.ends_with("tests.rs") {
            into.push(path);
        }
    }
}

/// The strings of a stream of tokens. Attributes (comments of documentation among them) and modules of tests are left out.
fn strings(tokens: TokenStream, into: &mut Vec<String>) {
    let mut attribute = false;
    let (mut module, mut named_tests, mut expects) = (false, false, false);
    for token in tokens {
        match token {
            TokenTree::Group(group) if attribute || named_tests => {
                // `#[error("...")]` is what is shown; all other attributes are not.
                let text = group.stream().to_string();
                if attribute && text.starts_with("error") {
                    strings(group.stream(), into);
                }
                (attribute, named_tests) = (false, false);
            }
            // What a programmer is told, of a thing that cannot be.
            TokenTree::Group(_) if expects => expects = false,
            TokenTree::Group(group) => strings(group.stream(), into),
            TokenTree::Punct(p) => {
                if p.as_char() == '#' {
                    attribute = true;
                }
            }
            TokenTree::Ident(name) => {
                named_tests = module && name == "tests";
                module = name == "mod";
                expects = name == "expect";
            }
            TokenTree::Literal(literal) => {
                let text = literal.to_string();
                if text.starts_with('"') {
                    into.push(text);
                }
            }
        }
    }
}

#[test]
fn no_string_of_any_crate_uses_a_retired_word() {
    let retired = retired();
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap();
    let mut files = Vec::new();
    for name in ["core", "words", "store", "server"] {
        sources(&crates.join(name).join("src"), &mut files);
    }
    let (mut read, mut wrong) = (0, Vec::new());
    for file in files.into_iter().filter(|f| !READ_FROM_OTHERS.iter().any(|other| f.ends_with(other))) {
        let text = fs::read_to_string(&file).unwrap();
        let mut found = Vec::new();
        strings(text.parse().unwrap_or_else(|e| panic!("{}: {e}", file.display())), &mut found);
        for said in found {
            read += 1;
            // A word by itself is a key; a text has a space.
            if !said.contains(' ') || NOT_SHOWN.iter().any(|s| said.contains(s)) {
                continue;
            }
            for (word, say) in &retired {
                if let Some(hit) = word.find(&said) {
                    wrong.push(format!("{}: {:?} in {said}: say {say}", file.display(), hit.as_str()));
                }
            }
        }
    }
    assert!(read > 4000, "{read} strings were read");
    assert!(wrong.is_empty(), "{} texts:\n{}", wrong.len(), wrong.join("\n"));
}
