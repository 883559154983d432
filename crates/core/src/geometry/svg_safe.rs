//! The small part of an SVG file that an outline needs, written anew: shapes, groups and their places. All else (filters, markers,
//! patterns, masks, text, pictures, scripts, foreign elements) is left out or refused before any of it is worked on, and what could
//! grow without end is counted first.

use crate::error::InputError;
use std::collections::HashMap;
use std::fmt::Write as _;
use usvg::roxmltree::{Document, Node, ParsingOptions};

const FIELD: &str = "svg";
/// Largest accepted file: 1 MB.
const MOST_BYTES: usize = 1_000_000;
/// Elements within elements, elements in all, and copies made by `use`. Our own choice: drawing programs stay far below.
const DEEPEST: usize = 64;
const MOST_ELEMENTS: u32 = 20_000;
const MOST_COPIES: usize = 4_000;
/// Segments of all paths together.
const MOST_SEGMENTS: usize = 60_000;
/// Rules of a style sheet that are looked at, and its size.
const MOST_STYLE_BYTES: usize = 60_000;

const SHAPES: [&str; 7] = ["path", "rect", "circle", "ellipse", "line", "polyline", "polygon"];
const CONTAINERS: [&str; 6] = ["svg", "g", "a", "defs", "symbol", "use"];
const PLACES: [&str; 24] = [
    "d",
    "points",
    "x",
    "y",
    "x1",
    "y1",
    "x2",
    "y2",
    "cx",
    "cy",
    "r",
    "rx",
    "ry",
    "width",
    "height",
    "viewBox",
    "preserveAspectRatio",
    "transform",
    "id",
    "href",
    "pathLength",
    "version",
    "overflow",
    "baseProfile",
];
/// What decides whether a shape is seen.
const SEEN: [&str; 6] = ["fill", "stroke", "display", "visibility", "opacity", "fill-rule"];

fn refuse<T>(reason: impl Into<String>) -> Result<T, InputError> {
    Err(InputError::refused(FIELD, reason.into()))
}

/// How deep elements lie within each other, found without building anything.
fn deepest(text: &str) -> usize {
    let (mut depth, mut most): (usize, usize) = (0, 0);
    let mut rest = text;
    while let Some(at) = rest.find('<') {
        rest = &rest[at..];
        let skip = |end: &str| rest.find(end).map_or(rest.len(), |i| i + end.len());
        if rest.starts_with("<!--") {
            rest = &rest[skip("-->")..];
        } else if rest.starts_with("<![CDATA[") {
            rest = &rest[skip("]]>")..];
        } else if rest.starts_with("</") {
            depth = depth.saturating_sub(1);
            rest = &rest[2..];
        } else if rest.starts_with("<?") || rest.starts_with("<!") {
            rest = &rest[skip(">")..];
        } else {
            let end = skip(">");
            if !rest[..end].ends_with("/>") {
                depth += 1;
                most = most.max(depth);
            }
            rest = &rest[end..];
        }
    }
    most
}

/// Fill, stroke and the like of plain rules (`.a`, `#a`, `path`) of the file's style sheets.
fn sheets(document: &Document) -> Result<HashMap<String, Vec<(String, String)>>, InputError> {
    let mut rules: HashMap<String, Vec<(String, String)>> = HashMap::new();
    let mut bytes = 0;
    for style in document.descendants().filter(|n| n.is_element() && n.tag_name().name() == "style") {
        let text: String = style.children().filter_map(|n| n.text()).collect();
        bytes += text.len();
        if bytes > MOST_STYLE_BYTES {
            return refuse("The file’s styles are over 60 kB. Save it as plain SVG.");
        }
        for rule in text.split('}') {
            let Some((selectors, declarations)) = rule.split_once('{') else { continue };
            let declared = declarations_of(declarations);
            for selector in
                selectors.split(',').map(str::trim).filter(|s| !s.is_empty() && !s.contains(char::is_whitespace))
            {
                rules.entry(selector.to_owned()).or_default().extend(declared.iter().cloned());
            }
        }
    }
    Ok(rules)
}

fn declarations_of(text: &str) -> Vec<(String, String)> {
    text.split(';')
        .filter_map(|d| d.split_once(':'))
        .map(|(name, value)| (name.trim().to_lowercase(), value.trim().to_owned()))
        .filter(|(name, _)| SEEN.contains(&name.as_str()))
        .collect()
}

fn segments(node: &Node) -> usize {
    let count =
        |name: &str, of: fn(char) -> bool| node.attribute(name).map_or(0, |v| v.chars().filter(|c| of(*c)).count());
    // A path's letters begin segments, and long runs of numbers repeat the last.
    count("d", |c| c.is_ascii_alphabetic() || c == ',' || c == ' ' || c == '-')
        + count("points", |c| c == ',' || c == ' ')
}

/// A paint that is no plain one (a gradient, a pattern) still paints.
fn plain_paint(value: &str) -> &str {
    if value.contains("url(") { "#000" } else { value }
}

struct Writer<'a, 'd> {
    out: String,
    rules: HashMap<String, Vec<(String, String)>>,
    by_id: HashMap<&'a str, Node<'a, 'd>>,
    copies: usize,
    segments: usize,
}

impl<'a, 'd: 'a> Writer<'a, 'd> {
    fn write(&mut self, node: Node<'a, 'd>, depth: usize) -> Result<(), InputError> {
        let name = node.tag_name().name();
        let shape = SHAPES.contains(&name);
        if !shape && !CONTAINERS.contains(&name) {
            return Ok(());
        }
        if depth > DEEPEST {
            return refuse(format!(
                "Too many levels in the file (over {DEEPEST}, counting copies). Save it as plain SVG."
            ));
        }
        self.segments += segments(&node);
        if self.segments > MOST_SEGMENTS * 4 {
            return refuse(format!("The paths have over {MOST_SEGMENTS} segments. Simplify the outline."));
        }
        if name == "use" {
            return self.copy(node, depth);
        }
        // What is only drawn where it is used does not stand here.
        if name == "defs"
            || name == "symbol" && depth > 0 && node.attribute("id").is_some_and(|id| self.by_id.contains_key(id))
        {
            return Ok(());
        }
        let tag = if name == "a" || name == "symbol" { "g" } else { name };
        let _ = write!(self.out, "<{tag}");
        if depth == 0 {
            self.out.push_str(" xmlns=\"http://www.w3.org/2000/svg\"");
        }
        self.attributes(&node, &[]);
        self.out.push('>');
        if !shape {
            for child in node.children().filter(Node::is_element) {
                self.write(child, depth + 1)?;
            }
        }
        let _ = write!(self.out, "</{tag}>");
        Ok(())
    }

    /// A copy by `use`, written out.
    fn copy(&mut self, node: Node<'a, 'd>, depth: usize) -> Result<(), InputError> {
        self.copies += 1;
        if self.copies > MOST_COPIES {
            return refuse(format!("The file reuses shapes over {MOST_COPIES} times. Save it without clones."));
        }
        let href = node.attributes().find(|a| a.name() == "href").map_or("", |a| a.value());
        let Some(target) = href.strip_prefix('#').and_then(|id| self.by_id.get(id)).copied() else { return Ok(()) };
        if node.ancestors().any(|a| a == target) {
            return refuse("A shape in the file contains itself. Save it as plain SVG.");
        }
        self.out.push_str("<g");
        self.attributes(&node, &["x", "y", "width", "height", "href", "id"]);
        let at = |name: &str| {
            node.attribute(name).and_then(|v| v.trim().parse::<f64>().ok()).filter(|v| v.is_finite()).unwrap_or(0.0)
        };
        let _ = write!(self.out, "><g transform=\"translate({} {})\">", at("x"), at("y"));
        if target.tag_name().name() == "symbol" {
            // A symbol is fitted into the size that its copy says.
            self.out.push_str("<svg");
            self.attributes(&target, &["width", "height", "x", "y"]);
            for name in ["width", "height"] {
                if let Some(size) = node.attribute(name).or_else(|| target.attribute(name)) {
                    self.attribute(name, size);
                }
            }
            self.out.push('>');
            for child in target.children().filter(Node::is_element) {
                self.write(child, depth + 3)?;
            }
            self.out.push_str("</svg>");
        } else {
            self.write(target, depth + 2)?;
        }
        self.out.push_str("</g></g>");
        Ok(())
    }

    fn attributes(&mut self, node: &Node, but: &[&str]) {
        let mut seen: Vec<(String, String)> = Vec::new();
        let mut put = |name: &str, value: &str| match seen.iter_mut().find(|s| s.0 == name) {
            Some(known) => value.clone_into(&mut known.1),
            None => seen.push((name.to_owned(), value.to_owned())),
        };
        for a in node.attributes().filter(|a| SEEN.contains(&a.name())) {
            put(a.name(), a.value());
        }
        let classes = node.attribute("class").unwrap_or("").split_whitespace().map(|c| format!(".{c}"));
        let id = node.attribute("id").map(|id| format!("#{id}"));
        for selector in std::iter::once(node.tag_name().name().to_owned()).chain(classes).chain(id) {
            for (name, value) in self.rules.get(&selector).into_iter().flatten() {
                put(name, value);
            }
        }
        for (name, value) in declarations_of(node.attribute("style").unwrap_or("")) {
            put(&name, &value);
        }
        let places = node.attributes().filter(|a| {
            PLACES.contains(&a.name()) && !but.contains(&a.name()) && a.name() != "id" && a.name() != "href"
        });
        let places: Vec<(&str, &str)> = places.map(|a| (a.name(), a.value())).collect();
        for (name, value) in places {
            self.attribute(name, value);
        }
        for (name, value) in seen {
            self.attribute(&name, plain_paint(&value));
        }
    }

    fn attribute(&mut self, name: &str, value: &str) {
        let value = value.replace('&', "&amp;").replace('<', "&lt;").replace('"', "&quot;");
        let _ = write!(self.out, " {name}=\"{value}\"");
    }
}

/// The outline's part of a file.
///
/// Refuses, saying why: a file over 1 MB, one that is not SVG, that carries a document type, entities, scripts or references to other
/// files, that is deeper, longer or copies itself oftener than any drawing of a cutter.
pub(super) fn safe_part(text: &str) -> Result<String, InputError> {
    if text.len() > MOST_BYTES {
        return refuse("The file is over 1 MB. Save just the outline.");
    }
    if text.contains("<!DOCTYPE") || text.contains("<!ENTITY") {
        return refuse("The file has a document type or entities. Save it as plain SVG.");
    }
    if deepest(text) > DEEPEST {
        return refuse(format!("Too many levels in the file (over {DEEPEST}). Save it as plain SVG."));
    }
    let options = ParsingOptions { allow_dtd: false, nodes_limit: MOST_ELEMENTS * 3, ..ParsingOptions::default() };
    let document = Document::parse_with_options(text, options)
        .map_err(|e| InputError::refused(FIELD, format!("Can’t read this file as SVG: {e}")))?;
    let root = document.root_element();
    if root.tag_name().name() != "svg" {
        return refuse("This isn’t an SVG file. Choose one.");
    }
    let mut elements = 0;
    let mut by_id = HashMap::new();
    for node in document.descendants().filter(Node::is_element) {
        elements += 1;
        if elements > MOST_ELEMENTS {
            return refuse(format!("The file has over {MOST_ELEMENTS} elements. Save just the outline."));
        }
        if matches!(node.tag_name().name(), "script" | "foreignObject" | "handler") {
            return refuse("The file contains a script or foreign content. Save it as plain SVG.");
        }
        for attribute in node.attributes() {
            let value = attribute.value().trim().to_lowercase();
            if attribute.name().to_lowercase().starts_with("on") {
                return refuse("The file contains a script. Save it as plain SVG.");
            }
            let refers = attribute.name() == "href" && !value.starts_with('#')
                || value.contains("javascript:")
                || value.contains("url(") && !["url(#", "url('#", "url(\"#"].iter().any(|own| value.contains(own));
            if refers {
                return refuse("The file links to another file or address. Put the outline in this file.");
            }
        }
        if let Some(id) = node.attribute("id") {
            by_id.entry(id).or_insert(node);
        }
    }
    let mut writer = Writer { out: String::new(), rules: sheets(&document)?, by_id, copies: 0, segments: 0 };
    writer.write(root, 0)?;
    Ok(writer.out)
}
