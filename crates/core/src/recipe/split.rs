//! A line taken apart: its amount, its name, and what stands beside it.

use super::ReadSettings;
use super::amount::{Amounts, TwoWays, amounts};
use super::cursor::Cursor;
use super::names::Names;
use super::words::tokens;

/// Words after the amount and the name that carry meaning of their own.
pub(super) struct Rest {
    pub name: String,
    pub beside: String,
    pub dusting: bool,
    pub more: bool,
    pub to_taste: bool,
}

/// Blanks, dashes and bullets made without_marks; numbering taken off.
pub(super) fn tidy(text: &str) -> String {
    let without_marks: String = text
        .chars()
        .map(|c| match c {
            '\u{a0}' | '\u{2007}' | '\u{2009}' | '\u{200a}' | '\u{202f}' | '\t' => ' ',
            '\u{2044}' | '\u{2215}' => '/',
            '\u{2010}'..='\u{2012}' => '-',
            c => c,
        })
        .filter(|c| !c.is_control() && !matches!(c, '\u{200b}'..='\u{200f}' | '\u{feff}' | '\u{ad}'))
        .collect();
    let mut line = without_marks.trim();
    loop {
        let cut = line.trim_start_matches(|c: char| {
            c.is_whitespace()
                || matches!(
                    c,
                    '*' | '\u{2022}'
                        | '\u{25aa}'
                        | '\u{25cf}'
                        | '\u{25e6}'
                        | '\u{2610}'
                        | '\u{2611}'
                        | '\u{25a2}'
                        | '\u{b7}'
                        | '\u{2013}'
                        | '\u{2014}'
                        | '\u{2713}'
                )
                || c == '-'
        });
        let cut = cut.strip_prefix("[ ]").unwrap_or(cut);
        if cut == line {
            break;
        }
        line = cut;
    }
    // `3) 200 g flour`: a bracket after a first number is its numbering.
    let digits = line.find(|c: char| !c.is_ascii_digit()).unwrap_or(0);
    if digits > 0
        && digits <= 2
        && let Some(rest) = line[digits..].strip_prefix(')')
    {
        line = rest.trim_start();
    }
    line.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// How many bytes of a text its first amount takes, where it begins with one.
pub(super) fn amount_at(text: &str, settings: &ReadSettings) -> Option<usize> {
    let mut cursor = Cursor::new(text);
    matches!(amounts(&mut cursor, settings.cups), Ok(Some(_)) | Err(_)).then(|| (text.len() - cursor.rest.len()).max(1))
}

/// The amount and the rest of a line: in front, after `of`, or at the end.
pub(super) fn split(line: &str, settings: &ReadSettings) -> Result<(Option<Amounts>, String), TwoWays> {
    let mut cursor = Cursor::new(line);
    let lower = line.to_lowercase();
    // `zest of 2 lemons`, `juice of half a lemon`, `grated zest of 1 orange`, `yolks of 2 eggs`.
    for part in ["zest", "juice", "rind", "peel", "yolk", "yolks", "white", "whites"] {
        let Some(at) = lower.find(&format!("{part} of ")) else { continue };
        if at > 24 || !line.is_char_boundary(at + part.len() + 4) || lower.len() != line.len() {
            continue;
        }
        let (before, after) = (&line[..at], &line[at + part.len() + 4..]);
        let mut c = Cursor::new(after);
        if let Some(found) = amounts(&mut c, settings.cups)?
            && before.chars().all(|c| !c.is_ascii_digit())
        {
            // Both parts of one fruit are two things: the words stay for the name to be asked about.
            return Ok((Some(found), format!("{before}{} {part}", c.rest.trim())));
        }
    }
    if let Some(found) = amounts(&mut cursor, settings.cups)? {
        return Ok((Some(found), cursor.rest.trim_start_matches(['.', ':', ' ']).to_owned()));
    }
    // `Flour: 430 g`, `Butter - 225g`, `Eggs 2`, `Sugar (190 g)`.
    let starts = line.char_indices().filter(|&(i, c)| {
        (c.is_ascii_digit() || crate::units::vulgar(c).is_some())
            && !line[..i].ends_with(|p: char| p.is_alphanumeric() || matches!(p, '.' | ',' | '/'))
    });
    for (at, _) in starts {
        let mut c = Cursor::new(&line[at..]);
        let Some(found) = amounts(&mut c, settings.cups)? else { continue };
        let tail = c.rest.trim();
        if tail.is_empty() || tail.starts_with([',', '(', ')', ';']) {
            let head = line[..at].trim_end_matches([' ', ':', '-', '\u{2013}', '\u{2014}', '(', ',', '=', '.']);
            let head = head.strip_suffix(" x").unwrap_or(head);
            return Ok((Some(found), format!("{head} {}", tail.trim_start_matches(')'))));
        }
    }
    Ok((None, line.to_owned()))
}

/// Another ingredient with an amount of its own beside the name: `1 cup butter, 2 cups flour`.
pub(super) fn second_thing<'a>(beside: &'a str, names: &Names, settings: &ReadSettings) -> Option<&'a str> {
    beside.split([',', ';']).map(str::trim).find(|part| {
        let mut c = Cursor::new(part);
        matches!(amounts(&mut c, settings.cups), Ok(Some(_)))
            && names.find(&tokens(c.rest), &[]).is_some_and(|found| found.whole)
    })
}

/// The rest of a name from a second amount on: `eggs + 1 yolk`, `egg and 2 yolks`.
pub(super) fn second_amount(name: &str) -> Option<&str> {
    let joints = name.char_indices().filter_map(|(i, c)| match c {
        '+' | '&' => Some(i + 1),
        ' ' => ["and ", "plus "].iter().find(|w| name[i + 1..].starts_with(**w)).map(|w| i + 1 + w.len()),
        _ => None,
    });
    joints.map(|i| name[i..].trim_start()).find(|tail| {
        tail.starts_with(|c: char| c.is_ascii_digit() || crate::units::vulgar(c).is_some())
            || ["one ", "two ", "three ", "an "].iter().any(|w| tail.starts_with(w))
    })
}

/// A line of two foods with an amount each, both known: `1 egg plus 1 yolk`.
pub(super) fn two_of(line: &str, names: &Names, settings: &ReadSettings) -> Option<(String, String)> {
    let plain = tidy(line);
    let (Some(_), rest) = split(&plain, settings).ok()? else { return None };
    let rest = take_apart(&rest);
    let second = second_amount(&rest.name)?;
    let first = rest.name.strip_suffix(second)?.trim_end_matches(|c: char| c == '+' || c == '&' || c.is_whitespace());
    let first = first.strip_suffix(" and").or_else(|| first.strip_suffix(" plus")).unwrap_or(first);
    let (amount, name) = split(second, settings).ok()?;
    let known = |name: &str| names.find(&tokens(name), &[]).is_some_and(|found| found.whole);
    if amount.is_none() || !known(first) || !known(&name) {
        return None;
    }
    let at = plain.rfind(second)?;
    let before = plain[..at].trim_end_matches(|c: char| c == '+' || c == '&' || c.is_whitespace());
    let before = before.strip_suffix(" and").or_else(|| before.strip_suffix(" plus")).unwrap_or(before);
    Some((before.to_owned(), plain[at..].to_owned()))
}

/// What goes under, onto or round the dough, not into it.
const NOT_IN_THE_DOUGH: [&str; 26] = [
    "for dusting",
    "for the board",
    "for rolling",
    "for flouring",
    "for sprinkling",
    "for greasing",
    "for coating",
    "for the coating",
    "for topping",
    "for the topping",
    "for the top",
    "for finishing",
    "to finish",
    "for decorating",
    "for decoration",
    "to decorate",
    "for garnish",
    "to garnish",
    "for brushing",
    "to brush",
    "for the glaze",
    "for glazing",
    "for the filling",
    "for filling",
    "for dipping",
    "to serve",
];

/// The name and what stands beside it, with the words that are no part of either taken out.
pub(super) fn take_apart(text: &str) -> Rest {
    let mut text = text.to_owned();
    let lower = text.to_lowercase();
    let dusting = NOT_IN_THE_DOUGH.iter().any(|w| {
        // `for rolling` is no part of the dough; `for rolling out the dough, 300 g` still begins with it.
        lower.find(w).is_some_and(|at| !lower[at + w.len()..].starts_with(char::is_alphabetic))
    });
    let more =
        ["plus more", "plus extra", "and more", "plus some", "more for", "extra for"].iter().any(|w| lower.contains(w));
    if lower.len() == text.len() {
        for cut in [
            ", plus more",
            " plus more",
            ", plus extra",
            " plus extra",
            ", and more",
            ", plus some",
            " plus some",
            " (plus more",
            " (plus extra",
            ", more for",
            ", extra for",
            ", to taste",
            " to taste",
            " such as ",
            ", such as",
            " (such as",
            ", like ",
            " e.g.",
            " (e.g.",
            ", as needed",
            " as needed",
        ] {
            if let Some(at) = text.to_lowercase().find(cut)
                && text.is_char_boundary(at)
            {
                text.truncate(at);
            }
        }
        for purpose in NOT_IN_THE_DOUGH {
            if let Some(at) = text.to_lowercase().find(purpose)
                && text.is_char_boundary(at)
            {
                text.truncate(at);
                text.truncate(text.trim_end_matches([',', '(', ' ']).len());
            }
        }
    }
    let mut name = String::new();
    let mut beside = String::new();
    let mut depth = 0_usize;
    let mut after = false;
    for c in text.chars() {
        match c {
            '(' | '[' => {
                depth += 1;
                beside.push(' ');
            }
            ')' | ']' => depth = depth.saturating_sub(1),
            ',' | ';' if depth == 0 => {
                after = true;
                beside.push_str(if beside.trim().is_empty() { "" } else { ", " });
            }
            c if depth > 0 || after => beside.push(c),
            c => name.push(c),
        }
    }
    // A dash with blanks round it begins a remark.
    if let Some(at) = name.find(" - ").or_else(|| name.find(" \u{2013} ")) {
        let remark = name[at..].trim_start_matches([' ', '-', '\u{2013}']).to_owned();
        name.truncate(at);
        beside = format!("{remark} {beside}");
    }
    if name.trim().is_empty() {
        (name, beside) = (beside, String::new());
    }
    Rest {
        name: name.trim().to_owned(),
        beside: beside.trim().to_owned(),
        dusting,
        more,
        to_taste: lower.contains("to taste"),
    }
}

pub(super) fn note_of(rest: &Rest) -> String {
    let note: String = rest.beside.split_whitespace().collect::<Vec<_>>().join(" ");
    note.trim_matches([',', ';', ' ', '.']).chars().take(80).collect()
}
