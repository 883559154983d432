//! Figures in sentences.

pub(super) fn pieces(n: u32) -> String {
    counted(n, "piece")
}

pub(super) fn counted(n: u32, word: &str) -> String {
    format!("{n} {word}{}", if n == 1 { "" } else { "s" })
}

pub(super) fn plain(v: f64) -> String {
    format!("{v:.2}").trim_end_matches('0').trim_end_matches('.').to_owned()
}

pub(super) fn grouped(v: f64) -> String {
    let whole = format!("{v:.0}");
    let mut out = String::new();
    for (i, c) in whole.chars().enumerate() {
        if i > 0 && (whole.len() - i).is_multiple_of(3) {
            out.push(',');
        }
        out.push(c);
    }
    out
}
