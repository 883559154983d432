//! Files made to hurt: each is refused, or read as what little it holds, within a second and without much memory, and the process
//! lives. Memory is what Linux says of the process (VmHWM, proc(5)); time is bounded loosely, since machines differ.

use ready_slab_core::dough::Pantry;
use ready_slab_core::geometry::{DarkEdge, PaperSize, outline_from_photo, read_svg};
use ready_slab_core::recipe::{ReadSettings, read_recipe};
use std::fmt::Write as _;

fn svg(body: &str) -> String {
    format!(
        "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='100mm' height='100mm' viewBox='0 0 100 100'>{body}</svg>"
    )
}

/// Names and files of each kind.
fn svgs() -> Vec<(&'static str, String)> {
    let nested = |tag: &str, n: usize| format!("{}{}", format!("<{tag}>").repeat(n), format!("</{tag}>").repeat(n));
    let chain = |what: &str, n: usize| -> String {
        (0..n).fold(String::new(), |mut out, i| {
            let _ = write!(
                out,
                "<{what} id='p{i}' width='9' height='9'><rect width='9' height='9' fill='url(#p{})'/></{what}>",
                i + 1
            );
            out
        })
    };
    // Each group uses the one before twice, ten times, or itself.
    let doubling = |n: usize, times: usize| -> String {
        let mut out = "<g id='u0'><rect width='9' height='9'/></g>".to_owned();
        for i in 1..n {
            let _ = write!(out, "<g id='u{i}'>{}</g>", format!("<use href='#u{}'/>", i - 1).repeat(times));
        }
        out + &format!("<use href='#u{}'/>", n - 1)
    };
    let clips = (0..6000).fold(String::new(), |mut out, i| {
        let _ = write!(out, "<clipPath id='c{i}' clip-path='url(#c{})'><rect width='9' height='9'/></clipPath>", i + 1);
        out
    });
    vec![
        ("a thousand svg in each other", nested("svg xmlns='http://www.w3.org/2000/svg'", 1000).replace("</svg xmlns='http://www.w3.org/2000/svg'>", "</svg>")),
        ("groups a thousand deep", svg(&nested("g", 1000))),
        ("ten thousand spans of text", svg(&format!("<text>{}</text>", nested("tspan", 10_000)))),
        ("links fifty thousand deep", svg(&nested("a", 50_000))),
        ("unclosed groups", format!("<svg xmlns='http://www.w3.org/2000/svg'>{}", "<g>".repeat(100_000))),
        ("four hundred patterns in a chain", svg(&(chain("pattern", 400) + "<rect width='50' height='50' fill='url(#p0)'/>"))),
        ("four hundred masks in a chain", svg(&(chain("mask", 400) + "<rect width='50' height='50' mask='url(#p0)'/>"))),
        ("six thousand clip paths in a chain", svg(&(clips + "<rect width='50' height='50' clip-path='url(#c0)'/>"))),
        ("uses that double forty times", svg(&doubling(40, 2))),
        ("uses that grow tenfold nine times", svg(&doubling(9, 10))),
        ("a use of itself", svg("<g id='a'><use href='#a'/></g>")),
        ("two uses of each other", svg("<g id='a'><use href='#b'/></g><g id='b'><use href='#a'/></g>")),
        ("a symbol of itself", svg("<symbol id='s'><use href='#s'/></symbol><use href='#s'/>")),
        ("a filter over everything", svg("<filter id='f' x='-1e6' y='-1e6' width='1e7' height='1e7'><feTurbulence numOctaves='9999' baseFrequency='9'/></filter><rect width='9' height='9' filter='url(#f)'/>")),
        ("a hundred filters", svg(&format!("<filter id='f'>{}</filter><rect width='9' height='9' filter='url(#f)'/>", "<feGaussianBlur stdDeviation='1e9'/>".repeat(100)))),
        ("markers on a long line", svg(&format!("<marker id='m' markerWidth='9' markerHeight='9'><path d='M0 0h9v9z' marker-mid='url(#m)'/></marker><polyline marker-mid='url(#m)' points='{}'/>", "1,2 3,4 ".repeat(20_000)))),
        ("dashes without end", svg("<path d='M0 0H1e9' stroke='#000' stroke-dasharray='1e-9'/>")),
        ("a style sheet of many rules", svg(&format!("<style>{}</style><rect class='a' width='9' height='9'/>", ".a.a.a.a.a.a.a.a{fill:red}".repeat(20_000)))),
        ("deep selectors", svg(&format!("<style>{}{{fill:red}}</style><rect width='9' height='9'/>", "g > * ".repeat(9_000)))),
        ("curves as far as the moon", svg("<path d='M0 0C1e30 1e30 -1e30 1e30 0 0z'/>")),
        ("a hundred thousand wide curves", svg(&format!("<path d='M0 0{}z'/>", "c1e6 1e6-1e6 1e6 1 1".repeat(40_000)))),
        ("arcs without number", svg(&format!("<path d='M0 0{}z'/>", "a9 9 0 1 1 1 1".repeat(60_000)))),
        ("a path of half a million points", svg(&format!("<path d='M0 0{}z'/>", "l1 1".repeat(200_000)))),
        ("numbers that are none", svg("<path d='MNaN Infh60v30z'/><rect width='NaN' height='-inf'/>")),
        ("a size of a light year", "<svg xmlns='http://www.w3.org/2000/svg' width='1e300mm' height='1e300mm' viewBox='0 0 1e-300 1e-300'><rect width='1' height='1'/></svg>".to_owned()),
        ("a box without size", "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 0 0'><rect width='1' height='1'/></svg>".to_owned()),
        ("entities that laugh", "<!DOCTYPE svg [<!ENTITY a 'ha'><!ENTITY b '&a;&a;&a;&a;'>]><svg xmlns='http://www.w3.org/2000/svg'>&b;</svg>".to_owned()),
        ("another file", svg("<image href='file:///etc/passwd' width='9' height='9'/>")),
        ("a script", svg("<script>while(1);</script>")),
        ("a handler", svg("<rect width='60' height='30' onload='x()'/>")),
        ("a page within", svg("<foreignObject><html/></foreignObject>")),
        ("transforms to nothing", svg("<g transform='matrix(0 0 0 0 0 0)'><rect width='60' height='30'/></g>")),
        ("transforms without end", svg(&format!("<g transform='{}'><rect width='60' height='30'/></g>", "scale(9) ".repeat(5_000)))),
        ("no markup at all", "\u{0}\u{1}\u{2}".to_owned()),
        ("twenty thousand elements", svg(&"<rect width='1' height='1'/>".repeat(21_000))),
    ]
}

fn recipes() -> Vec<(&'static str, String)> {
    let recipe = |ingredient: &str| {
        format!("{{\"@type\":\"Recipe\",\"recipeIngredient\":[{}]}}", serde_json::to_string(ingredient).unwrap())
    };
    vec![
        ("open bold without end", "<b>".repeat(23_000)),
        ("fonts that are rebuilt", format!("<html>{}", "<a><font size=1>".repeat(4_000) + &"<p>".repeat(2_000))),
        ("tables in tables", "<table><tr><td>".repeat(9_000)),
        ("a page of open brackets", "<".repeat(190_000)),
        ("attributes without end", format!("<p {}>", "a=1 ".repeat(45_000))),
        ("markup in an ingredient", recipe(&"<b><i>".repeat(15_000))),
        ("entities in an ingredient", recipe(&"&amp;".repeat(30_000))),
        ("json two hundred deep", format!("{}{}", "[".repeat(90_000), "]".repeat(90_000))),
        ("graphs in graphs", format!("{}1{}", "{\"@graph\":[".repeat(100), "]}".repeat(100))),
        ("a block that never ends", "<script type='application/ld+json'>{\"@type\":".to_owned()),
        ("quotes that never close", format!("ingredient,grams\n\"{}", "x".repeat(150_000))),
        ("ten thousand ingredients", recipe(&"1 g flour\n".repeat(9_000))),
    ]
}

fn chunk(kind: &[u8; 4], data: &[u8]) -> Vec<u8> {
    let mut out = u32::try_from(data.len()).unwrap().to_be_bytes().to_vec();
    out.extend(kind);
    out.extend(data);
    let crc = out[4..].iter().fold(!0_u32, |crc, byte| {
        (0..8).fold(crc ^ u32::from(*byte), |c, _| if c & 1 == 1 { (c >> 1) ^ 0xedb8_8320 } else { c >> 1 })
    });
    out.extend((!crc).to_be_bytes());
    out
}

fn png(width: u32, height: u32, data: &[u8]) -> Vec<u8> {
    let mut head = width.to_be_bytes().to_vec();
    head.extend(height.to_be_bytes());
    head.extend([8, 2, 0, 0, 0]);
    let mut out = b"\x89PNG\r\n\x1a\n".to_vec();
    out.extend(chunk(b"IHDR", &head));
    out.extend(chunk(b"IDAT", data));
    out.extend(chunk(b"IEND", b""));
    out
}

fn jpeg(width: u16, height: u16, whole: bool) -> Vec<u8> {
    let mut out = vec![0xff, 0xd8, 0xff, 0xc0, 0, 11, 8];
    out.extend(height.to_be_bytes());
    out.extend(width.to_be_bytes());
    out.extend([1, 1, 0x11, 0, 0xff, 0xda, 0, 8, 1, 1, 0, 0, 63, 0]);
    out.extend([0_u8; 4000]);
    if whole {
        out.extend([0xff, 0xd9]);
    }
    out
}

fn photos() -> Vec<(&'static str, Vec<u8>)> {
    vec![
        ("a picture as wide as a street", png(60_000, 60_000, b"x")),
        ("sixty-four million pixels", png(8_000, 8_000, b"x")),
        ("a picture without size", png(0, 0, b"x")),
        ("a stream that is none", png(4_000, 4_000, &[0x78, 0x9c, 1, 2, 3])),
        ("a head without a body", b"\x89PNG\r\n\x1a\n".to_vec()),
        ("a JPEG of the largest size", jpeg(65_535, 65_535, true)),
        ("half a JPEG", jpeg(1_000, 1_000, false)),
        ("a JPEG without tables", jpeg(1_000, 1_000, true)),
        ("rubbish", (0_u32..90_000).map(|i| u8::try_from(i * 7 % 251).unwrap()).collect()),
        ("nothing", vec![]),
    ]
}

/// The most memory this process ever held, in MB.
fn most_mb() -> f64 {
    let status = std::fs::read_to_string("/proc/self/status").unwrap();
    let line = status.lines().find(|l| l.starts_with("VmHWM")).unwrap();
    line.split_whitespace().nth(1).unwrap().parse::<f64>().unwrap() / 1024.0
}

/// So long this thread has worked, s, to a hundredth: the clock ticks of `proc(5)`, fields 14 and 15.
fn worked_s() -> f64 {
    let stat = std::fs::read_to_string("/proc/thread-self/stat").unwrap();
    let after_the_name = stat.rsplit(')').next().unwrap();
    let ticks: Vec<f64> = after_the_name.split_whitespace().skip(11).take(2).map(|t| t.parse().unwrap()).collect();
    (ticks[0] + ticks[1]) / 100.0
}

#[test]
fn hostile_files_are_refused_quickly_in_little_memory_and_the_process_lives() {
    let (svgs, recipes, photos) = (svgs(), recipes(), photos());
    assert!(svgs.len() + recipes.len() + photos.len() >= 40);
    let before = most_mb();
    let check = |name: &str, began_s: f64| {
        // The crates that unpack are built without optimisation, and ours without inlining across its parts: five times the second that a release has. By this
        // thread's own time: a busy machine is no fault of the reader.
        let took_s = worked_s() - began_s;
        assert!(took_s < 5.0, "{name}: {took_s} s");
        assert!(most_mb() - before < 200.0, "{name}: {} MB", most_mb() - before);
    };
    let mut read = Vec::new();
    for (name, file) in &svgs {
        let began = worked_s();
        match read_svg(file, None) {
            Err(refused) => assert!(!refused.problem().to_string().is_empty()),
            Ok(_) => read.push(*name),
        }
        check(name, began);
    }
    // These hold a sound outline beside what would have hurt, which is left out.
    let sound = [
        "deep selectors",
        "a filter over everything",
        "a hundred filters",
        "markers on a long line",
        "four hundred patterns in a chain",
        "four hundred masks in a chain",
        "six thousand clip paths in a chain",
    ];
    assert!(read.iter().all(|name| sound.contains(name)), "{read:?}");
    for (name, text) in &recipes {
        let began = worked_s();
        if let Ok((_, reading)) = read_recipe(text, Pantry::built_in(), &ReadSettings::default(), &[]) {
            assert!(reading.lines.len() <= 200, "{name}");
        }
        check(name, began);
    }
    let corners = [(0.1, 0.1), (0.9, 0.1), (0.9, 0.9), (0.1, 0.9)];
    for (name, file) in &photos {
        let began = worked_s();
        assert!(outline_from_photo(file, corners, PaperSize::A4, DarkEdge::Outside).is_err(), "{name}");
        check(name, began);
    }
}

#[test]
fn a_style_sheet_that_hides_and_one_that_draws_are_still_understood() {
    let drawn = svg(
        "<style>.bg{fill:none;stroke:none}.cut{fill:none;stroke:#00f}</style><rect class='bg' width='99' height='99'/><rect class='cut' x='10' y='10' width='60' height='30'/>",
    );
    let outline = read_svg(&drawn, None).unwrap();
    assert!((outline.extent().0.mm() - 60.0).abs() < 0.1, "the background is not seen and does not cut");
}

/// Texts below the limit of a recipe that took a minute, or seconds, before a line's length was bounded.
#[test]
fn a_recipe_in_one_endless_line_is_read_as_far_as_it_goes() {
    let settings = ReadSettings::default();
    let brackets = "(".repeat(99_000) + &")".repeat(99_000);
    for text in ["1 cup butter or ".repeat(12_000), "half-".repeat(39_000) + "cup flour", brackets] {
        let read = read_recipe(&text, Pantry::built_in(), &settings, &[]);
        assert!(read.is_ok_and(|r| r.1.faults.iter().any(|f| f.to_string().contains("is longer than"))));
    }
}
