//! What a person does on the page.

use std::time::Duration;

use anyhow::{Context, bail};
use thirtyfour::prelude::*;

use crate::Browser;

/// Longest wait for the page to get somewhere.
const PATIENCE: Duration = Duration::from_secs(20);
const LOOK_AGAIN: Duration = Duration::from_millis(25);

impl Browser {
    /// The first element a selector finds, waited for.
    ///
    /// # Errors
    /// When it does not come.
    pub async fn see(&self, css: &str) -> anyhow::Result<WebElement> {
        self.driver
            .query(By::Css(css))
            .wait(PATIENCE, LOOK_AGAIN)
            .first()
            .await
            .with_context(|| format!("never saw {css}"))
    }

    /// Waits until an element's text contains some words, and gives the whole of it.
    ///
    /// # Errors
    /// When it does not come to it; the error shows what was there.
    pub async fn read(&self, css: &str, words: &str) -> anyhow::Result<String> {
        let mut seen = String::new();
        for _ in 0..PATIENCE.as_millis() / LOOK_AGAIN.as_millis() {
            // The element may be replaced while it is looked at.
            if let Ok(element) = self.driver.find(By::Css(css)).await
                && let Ok(text) = element.text().await
            {
                if text.contains(words) {
                    return Ok(text);
                }
                seen = text;
            }
            tokio::time::sleep(LOOK_AGAIN).await;
        }
        bail!("{css} never said {words:?}; it says {seen:?}")
    }

    /// Waits until a script says true.
    ///
    /// # Errors
    /// When it never does.
    pub async fn until(&self, script: &str) -> anyhow::Result<()> {
        for _ in 0..PATIENCE.as_millis() / LOOK_AGAIN.as_millis() {
            if self.script(script).await?.as_bool() == Some(true) {
                return Ok(());
            }
            tokio::time::sleep(LOOK_AGAIN).await;
        }
        bail!("never came true: {script}")
    }

    /// Waits until fonts are there and nothing fades from one colour to another.
    ///
    /// # Errors
    /// When it never comes to rest.
    pub async fn at_rest(&self) -> anyhow::Result<()> {
        self.until(
            "return document.fonts.status === 'loaded'
               && document.getAnimations().every((one) => one.playState !== 'running')",
        )
        .await
    }

    /// What a script returns.
    ///
    /// # Errors
    /// When it throws.
    pub async fn script(&self, script: &str) -> anyhow::Result<serde_json::Value> {
        Ok(self.driver.execute(script, Vec::new()).await?.json().clone())
    }

    /// Presses keys with no field in focus.
    ///
    /// # Errors
    /// When the browser refuses.
    pub async fn press(&self, keys: impl Into<TypingData>) -> anyhow::Result<()> {
        self.script("document.activeElement?.blur(); return null").await?;
        self.driver.action_chain().send_keys(keys).perform().await?;
        Ok(())
    }

    /// Presses a key with shift held down and no field in focus.
    ///
    /// # Errors
    /// When the browser refuses.
    pub async fn press_shifted(&self, key: char) -> anyhow::Result<()> {
        self.script("document.activeElement?.blur(); return null").await?;
        self.driver
            .action_chain()
            .key_down(Key::Shift)
            .send_keys(key.to_string())
            .key_up(Key::Shift)
            .perform()
            .await?;
        Ok(())
    }

    /// Types into whatever has the focus.
    ///
    /// # Errors
    /// When the browser refuses.
    pub async fn type_on(&self, keys: impl Into<TypingData>) -> anyhow::Result<()> {
        self.driver.action_chain().send_keys(keys).perform().await?;
        Ok(())
    }

    /// Puts a whole text into whatever has the focus at once, as pasting does: no half-typed text in between.
    ///
    /// # Errors
    /// When the browser refuses.
    pub async fn paste(&self, text: &str) -> anyhow::Result<()> {
        self.driver.cdp().send_raw("Input.insertText", serde_json::json!({ "text": text })).await?;
        Ok(())
    }

    /// Waits until everything is in the shop's file: the sheet says so, and no line is on its way to it.
    ///
    /// # Errors
    /// When it is not saved in time.
    pub async fn saved(&self) -> anyhow::Result<()> {
        let settled =
            "document.querySelector('[data-save=saved]') && !document.querySelector('[data-on-its-way]')";
        self.until(&format!("return Boolean({settled})")).await
    }

    /// Everything axe finds at fault on the page, and what it could not decide about colours for a background
    /// image. What else it cannot decide is text that is scrolled out of sight, and text in drawings: see
    /// [`Browser::faint_figures`].
    ///
    /// # Errors
    /// When axe cannot be run.
    pub async fn axe(&self) -> anyhow::Result<Vec<String>> {
        let axe = std::fs::read_to_string(concat!(
            env!("CARGO_MANIFEST_DIR"),
            "/../../web/node_modules/axe-core/axe.min.js"
        ))?;
        self.driver.execute(axe, Vec::new()).await?;
        let found = self
            .driver
            .execute_async(
                "const done = arguments[0];
                 const said = (rules) => rules.flatMap((rule) => rule.nodes.map((node) =>
                   `${rule.id}: ${node.target} ${node.any.map((any) => any.message)}`));
                 axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'best-practice'] }).then((result) => done([
                   ...said(result.violations),
                   ...said(result.incomplete).filter((line) => /background image|gradient/.test(line))]))",
                Vec::new(),
            )
            .await?;
        Ok(found.convert()?)
    }

    /// Figures in drawings whose contrast with the drawing's ground is under 4.5 : 1 (WCAG 2.1, 1.4.3).
    ///
    /// # Errors
    /// When the browser refuses.
    pub async fn faint_figures(&self) -> anyhow::Result<Vec<String>> {
        let script = "const level = (colour) => {
               const [r, g, b] = colour.match(/[\\d.]+/g).map(Number).map((c) => c / 255)
                 .map((c) => c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);
               return 0.2126 * r + 0.7152 * g + 0.0722 * b;
             };
             return [...document.querySelectorAll('.drawing text, .drawing tspan')].map((text) => {
               const ground = level(getComputedStyle(text.closest('.drawing')).backgroundColor);
               const figure = level(getComputedStyle(text).fill);
               const ratio = (Math.max(ground, figure) + 0.05) / (Math.min(ground, figure) + 0.05);
               return ratio < 4.5 ? `${text.textContent}: ${ratio.toFixed(2)}` : null;
             }).filter(Boolean)";
        Ok(serde_json::from_value(self.script(script).await?)?)
    }
}
