//! HTML told apart in one pass, without building a page of it: what is read costs no more than its length.

use html5ever::tendril::StrTendril;
use html5ever::tokenizer::states::{RawKind, State};
use html5ever::tokenizer::{BufferQueue, TagKind, Token, TokenSink, TokenSinkResult, Tokenizer, TokenizerOpts};
use std::cell::{Cell, RefCell};

/// What a page holds: its text, and its blocks of JSON-LD.
#[derive(Default)]
pub(super) struct Told {
    pub text: String,
    pub json_ld: Vec<String>,
}

#[derive(Default)]
struct Listener {
    told: RefCell<Told>,
    /// Within an element whose text is no text of the page, and whether that is JSON-LD.
    inside: Cell<Option<bool>>,
}

fn is_silent(name: &str) -> bool {
    matches!(name, "script" | "style" | "template" | "noscript" | "title" | "textarea" | "iframe")
}

impl TokenSink for Listener {
    type Handle = ();

    fn process_token(&self, token: Token, _line: u64) -> TokenSinkResult<()> {
        match token {
            Token::CharacterTokens(text) => self.hear(&text),
            Token::TagToken(tag) => {
                let name: &str = &tag.name;
                match tag.kind {
                    TagKind::StartTag if is_silent(name) && !tag.self_closing => {
                        let json = name == "script"
                            && tag.attrs.iter().any(|a| {
                                &*a.name.local == "type" && a.value.trim().eq_ignore_ascii_case("application/ld+json")
                            });
                        self.inside.set(Some(json));
                        if json {
                            self.told.borrow_mut().json_ld.push(String::new());
                        }
                        return match name {
                            "script" => TokenSinkResult::RawData(RawKind::ScriptData),
                            "style" | "iframe" | "noscript" => TokenSinkResult::RawData(RawKind::Rawtext),
                            "title" | "textarea" => TokenSinkResult::RawData(RawKind::Rcdata),
                            _ => TokenSinkResult::Continue,
                        };
                    }
                    TagKind::EndTag if is_silent(name) => self.inside.set(None),
                    TagKind::StartTag | TagKind::EndTag => {
                        if matches!(name, "br" | "p" | "li" | "div" | "tr") && self.inside.get().is_none() {
                            self.told.borrow_mut().text.push('\n');
                        }
                    }
                }
            }
            Token::DoctypeToken(_)
            | Token::CommentToken(_)
            | Token::NullCharacterToken
            | Token::EOFToken
            | Token::ParseError(_) => {}
        }
        TokenSinkResult::Continue
    }
}

impl Listener {
    fn hear(&self, text: &StrTendril) {
        let mut told = self.told.borrow_mut();
        match self.inside.get() {
            None => told.text.push_str(text),
            Some(true) => {
                if let Some(block) = told.json_ld.last_mut() {
                    block.push_str(text);
                }
            }
            Some(false) => {}
        }
    }
}

/// Tells a page, or a piece of one, apart.
pub(super) fn told(html: &str) -> Told {
    let options = TokenizerOpts { initial_state: Some(State::Data), ..TokenizerOpts::default() };
    let tokenizer = Tokenizer::new(Listener::default(), options);
    let input = BufferQueue::default();
    input.push_back(StrTendril::from_slice(html));
    // Scripts are text here, so that nothing interrupts it.
    let _ = tokenizer.feed(&input);
    tokenizer.end();
    tokenizer.sink.told.into_inner()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn text_entities_and_blocks_come_apart() {
        let page = told("<p>1&frac12; cups <b>flour</b></p><script>alert(1)</script><style>p{}</style>");
        assert_eq!(page.text.trim(), "1\u{bd} cups flour");
        let page = told("<html><script type=\"application/ld+json\">{\"a\": \"<b>\"}</script><p>after");
        assert_eq!((page.json_ld, page.text.trim()), (vec!["{\"a\": \"<b>\"}".to_owned()], "after"));
    }
}
