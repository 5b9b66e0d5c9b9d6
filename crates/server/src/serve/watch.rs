//! One connection, watched: what it is doing, since when the program waits for its other side, and how fast that side takes
//! and sends. A side that is too slow is cut off; the longest wait is what gives way when there is no room.

use std::pin::Pin;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::task::{Context, Poll, ready};
use std::time::Duration;

use axum::body::{Body, Bytes, HttpBody};
use hyper::body::{Frame, Incoming, SizeHint};
use tokio::io::{AsyncRead, AsyncWrite, ReadBuf};
use tokio::net::TcpStream;
use tokio::sync::Notify;
use tokio::time::{Instant, Sleep, sleep_until};

/// What the other side must take or send, while there is something to take or to send.
#[derive(Debug, Clone, Copy)]
pub struct LeastRate {
    /// So many bytes…
    pub bytes: usize,
    /// …in each such time.
    pub each: Duration,
}

/// A connection as its own task, the room that counts it, and its answers see it.
#[derive(Debug, Clone)]
pub(super) struct Watch(Arc<Inner>);

#[derive(Debug)]
struct Inner {
    /// Since when the program waits for the other side; `None` while the program itself works for it.
    waits_since: Mutex<Option<Instant>>,
    /// A stream that is meant to stay open: it never gives way, and is counted by itself.
    is_long: AtomicBool,
    given_up: Notify,
}

impl Watch {
    pub(super) fn new() -> Self {
        Self(Arc::new(Inner {
            waits_since: Mutex::new(Some(Instant::now())),
            is_long: AtomicBool::new(false),
            given_up: Notify::new(),
        }))
    }

    fn waits(&self) -> MutexGuard<'_, Option<Instant>> {
        self.0.waits_since.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Since when the program waits for the other side.
    pub(super) fn waits_since(&self) -> Option<Instant> {
        *self.waits()
    }

    pub(super) fn is_long(&self) -> bool {
        self.0.is_long.load(Ordering::Acquire)
    }

    pub(super) fn be_long(&self, is_long: bool) {
        self.0.is_long.store(is_long, Ordering::Release);
    }

    /// Ends the connection.
    pub(super) fn give_up(&self) {
        self.0.given_up.notify_one();
    }

    pub(super) async fn given_up(&self) {
        self.0.given_up.notified().await;
    }

    /// The program works for it.
    pub(super) fn works(&self) {
        *self.waits() = None;
    }

    /// The program waits for the other side: from now on, when it did not already.
    pub(super) fn waits_for_it(&self) {
        self.waits().get_or_insert_with(Instant::now);
    }

    /// The other side did its part: the wait begins anew.
    fn has_done(&self) {
        let mut waits = self.waits();
        if waits.is_some() {
            *waits = Some(Instant::now());
        }
    }

    fn is(&self, other: &Self) -> bool {
        Arc::ptr_eq(&self.0, &other.0)
    }
}

impl PartialEq for Watch {
    fn eq(&self, other: &Self) -> bool {
        self.is(other)
    }
}

/// Counts what comes while somebody waits for it, and says when that is too little.
#[derive(Debug)]
struct Pace {
    least: LeastRate,
    bytes: usize,
    /// While there is something to wait for.
    until: Option<Pin<Box<Sleep>>>,
}

impl Pace {
    fn new(least: LeastRate) -> Self {
        Self { least, bytes: 0, until: None }
    }

    fn has_come(&mut self, bytes: usize) {
        self.bytes = self.bytes.saturating_add(bytes);
    }

    /// Nothing is waited for.
    fn rests(&mut self) {
        self.until = None;
        self.bytes = 0;
    }

    /// Whether the other side is too slow: asked while it is waited for, and again when that can be told.
    fn is_too_slow(&mut self, context: &mut Context<'_>) -> bool {
        loop {
            let until =
                self.until.get_or_insert_with(|| Box::pin(sleep_until(Instant::now() + self.least.each)));
            if until.as_mut().poll(context).is_pending() {
                return false;
            }
            if self.bytes < self.least.bytes {
                return true;
            }
            self.rests();
        }
    }
}

/// A stream whose other side is watched.
#[derive(Debug)]
pub(super) struct Watched {
    stream: TcpStream,
    watch: Watch,
    /// How fast it takes what it is sent.
    taking: Pace,
}

impl Watched {
    pub(super) fn new(stream: TcpStream, watch: Watch, least: LeastRate) -> Self {
        Self { stream, watch, taking: Pace::new(least) }
    }

    /// What became of a write: while it hangs, the other side must take enough.
    fn written(
        &mut self,
        context: &mut Context<'_>,
        written: Poll<std::io::Result<usize>>,
    ) -> Poll<std::io::Result<usize>> {
        if let Poll::Ready(Ok(bytes)) = &written {
            self.taking.has_come(*bytes);
        }
        // Whoever reads slowly takes a little now and then: the time since the backlog began counts, not the last byte.
        let hangs = written.is_pending() || self.taking.until.is_some();
        if hangs && !self.watch.is_long() && self.taking.is_too_slow(context) {
            return Poll::Ready(Err(std::io::ErrorKind::TimedOut.into()));
        }
        written
    }
}

impl AsyncRead for Watched {
    fn poll_read(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
        buffer: &mut ReadBuf<'_>,
    ) -> Poll<std::io::Result<()>> {
        Pin::new(&mut self.stream).poll_read(context, buffer)
    }
}

impl AsyncWrite for Watched {
    fn poll_write(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
        bytes: &[u8],
    ) -> Poll<std::io::Result<usize>> {
        let written = Pin::new(&mut self.stream).poll_write(context, bytes);
        self.written(context, written)
    }

    fn poll_write_vectored(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
        pieces: &[std::io::IoSlice<'_>],
    ) -> Poll<std::io::Result<usize>> {
        let written = Pin::new(&mut self.stream).poll_write_vectored(context, pieces);
        self.written(context, written)
    }

    fn is_write_vectored(&self) -> bool {
        self.stream.is_write_vectored()
    }

    /// Asked when everything was handed over.
    fn poll_flush(mut self: Pin<&mut Self>, context: &mut Context<'_>) -> Poll<std::io::Result<()>> {
        let flushed = ready!(Pin::new(&mut self.stream).poll_flush(context));
        self.taking.rests();
        self.watch.has_done();
        Poll::Ready(flushed)
    }

    fn poll_shutdown(mut self: Pin<&mut Self>, context: &mut Context<'_>) -> Poll<std::io::Result<()>> {
        Pin::new(&mut self.stream).poll_shutdown(context)
    }
}

/// A request's body, whose sender is watched until it is there.
#[derive(Debug)]
pub(super) struct Arriving {
    body: Incoming,
    watch: Watch,
    sending: Pace,
}

impl Arriving {
    pub(super) fn watched(body: Incoming, watch: Watch, least: LeastRate) -> Body {
        if body.is_end_stream() {
            Body::empty()
        } else {
            Body::new(Self { body, watch, sending: Pace::new(least) })
        }
    }
}

/// The sender of a body was too slow.
#[derive(Debug, thiserror::Error)]
#[error("the body came too slowly")]
pub struct TooSlow;

impl HttpBody for Arriving {
    type Data = Bytes;
    type Error = Box<dyn std::error::Error + Send + Sync>;

    fn poll_frame(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
    ) -> Poll<Option<Result<Frame<Bytes>, Self::Error>>> {
        match Pin::new(&mut self.body).poll_frame(context) {
            Poll::Ready(Some(Ok(frame))) => {
                self.sending.has_come(frame.data_ref().map_or(0, Bytes::len));
                if self.body.is_end_stream() {
                    self.watch.works();
                }
                Poll::Ready(Some(Ok(frame)))
            }
            Poll::Ready(end) => {
                self.watch.works();
                Poll::Ready(end.map(|error| error.map_err(Into::into)))
            }
            Poll::Pending => {
                self.watch.waits_for_it();
                if self.sending.is_too_slow(context) {
                    Poll::Ready(Some(Err(TooSlow.into())))
                } else {
                    Poll::Pending
                }
            }
        }
    }

    fn is_end_stream(&self) -> bool {
        self.body.is_end_stream()
    }

    fn size_hint(&self) -> SizeHint {
        self.body.size_hint()
    }
}

impl Drop for Arriving {
    fn drop(&mut self) {
        // Whoever asked for it has what they wanted of it.
        self.watch.works();
    }
}
