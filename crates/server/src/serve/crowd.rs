//! Who is let in: connections are bounded in all and for each peer, and when there is no room the one gives way that has let
//! the program wait for longest, idle or slow. So a page gets in however many hold connections open.

use std::collections::HashMap;
use std::net::{IpAddr, Ipv4Addr};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use super::watch::Watch;

/// An answer that is meant to take long: it is counted by itself, and never gives way to others.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LongAnswer {
    /// A screen that listens to what is changed.
    Changes,
    /// A file that is taken away, however slow the way.
    Download,
}

impl LongAnswer {
    /// So many at the same time; when there are more the oldest gives way.
    pub const fn most(self) -> usize {
        match self {
            Self::Changes => 256,
            Self::Download => 16,
        }
    }
}

/// Everybody who is in.
#[derive(Debug, Clone, Default)]
pub(super) struct Crowd(Arc<Mutex<Everybody>>);

#[derive(Debug, Default)]
struct Everybody {
    next: u64,
    inside: HashMap<u64, (IpAddr, Watch)>,
    long: Vec<(LongAnswer, Watch)>,
}

/// A place inside, until it is dropped.
#[derive(Debug)]
pub(super) struct Place {
    number: u64,
    watch: Watch,
    crowd: Crowd,
}

/// All of this machine is one peer, whatever name it gives itself.
fn peer(address: IpAddr) -> IpAddr {
    let address = address.to_canonical();
    if address.is_loopback() { Ipv4Addr::LOCALHOST.into() } else { address }
}

impl Crowd {
    fn everybody(&self) -> MutexGuard<'_, Everybody> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// A place for one more, `None` when nobody can give way: all of them are worked for at this moment.
    pub(super) fn let_in(
        &self,
        address: IpAddr,
        watch: &Watch,
        (all, of_one): (usize, usize),
    ) -> Option<Place> {
        let address = peer(address);
        let mut everybody = self.everybody();
        let counted = |of: Option<IpAddr>| {
            let is_counted =
                move |one: &&(IpAddr, Watch)| !one.1.is_long() && of.is_none_or(|of| of == one.0);
            everybody.inside.values().filter(is_counted).count()
        };
        let among = if counted(Some(address)) >= of_one {
            Some(Some(address))
        } else if counted(None) >= all {
            Some(None)
        } else {
            None
        };
        if let Some(of) = among {
            let longest = everybody
                .inside
                .iter()
                .filter(|(_, (peer, watch))| !watch.is_long() && of.is_none_or(|of| of == *peer))
                .filter_map(|(number, (_, watch))| Some((watch.waits_since()?, *number)))
                .min()?;
            if let Some((_, watch)) = everybody.inside.remove(&longest.1) {
                watch.give_up();
            }
        }
        let number = everybody.next;
        everybody.next += 1;
        everybody.inside.insert(number, (address, watch.clone()));
        Some(Place { number, watch: watch.clone(), crowd: self.clone() })
    }

    /// Counts a connection as one with a long answer, until it is asked something else or ends: what was handed over last may
    /// still be on its way.
    pub(super) fn lasts(&self, kind: LongAnswer, watch: &Watch) {
        let mut everybody = self.everybody();
        if everybody.long.iter().filter(|(one, _)| *one == kind).count() >= kind.most()
            && let Some(oldest) = everybody.long.iter().position(|(one, _)| *one == kind)
        {
            everybody.long.remove(oldest).1.give_up();
        }
        everybody.long.push((kind, watch.clone()));
        watch.be_long(true);
    }

    /// Counts it among the others again.
    pub(super) fn lasts_no_longer(&self, watch: &Watch) {
        if watch.is_long() {
            watch.be_long(false);
            self.everybody().long.retain(|(_, one)| one != watch);
        }
    }
}

impl Drop for Place {
    fn drop(&mut self) {
        self.crowd.lasts_no_longer(&self.watch);
        self.crowd.everybody().inside.remove(&self.number);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn all_of_loopback_is_one_peer() {
        let crowd = Crowd::default();
        let at = |text: &str| text.parse::<IpAddr>().unwrap();
        let watches: Vec<Watch> = (0..4).map(|_| Watch::new()).collect();
        let first = crowd.let_in(at("127.0.0.1"), &watches[0], (9, 2)).unwrap();
        let _second = crowd.let_in(at("127.9.8.7"), &watches[1], (9, 2)).unwrap();
        watches.iter().for_each(Watch::works);
        assert!(crowd.let_in(at("::ffff:127.0.0.2"), &watches[2], (9, 2)).is_none(), "both are worked for");
        assert!(crowd.let_in(at("192.0.2.1"), &watches[2], (9, 2)).is_some(), "another peer");
        watches[0].waits_for_it();
        let third = crowd.let_in(at("127.0.0.2"), &watches[2], (9, 2)).unwrap();
        drop(first);
        assert_eq!(crowd.everybody().inside.len(), 2);
        drop(third);
        let _ = crowd.let_in(at("::1"), &watches[3], (9, 2)).unwrap();
    }

    #[test]
    fn a_long_answer_never_gives_way_to_others_and_the_oldest_of_its_kind_does() {
        let crowd = Crowd::default();
        let at: IpAddr = Ipv4Addr::LOCALHOST.into();
        let listens = Watch::new();
        let _place = crowd.let_in(at, &listens, (1, 1)).unwrap();
        crowd.lasts(LongAnswer::Changes, &listens);
        let other = Watch::new();
        let _other = crowd.let_in(at, &other, (1, 1)).unwrap();
        assert_eq!(crowd.everybody().inside.len(), 2, "it is not counted among the others");
        crowd.lasts_no_longer(&listens);
        assert!(!listens.is_long() && crowd.everybody().long.is_empty());
        let all: Vec<Watch> = (0..=LongAnswer::Download.most()).map(|_| Watch::new()).collect();
        all.iter().for_each(|watch| crowd.lasts(LongAnswer::Download, watch));
        assert_eq!(crowd.everybody().long.len(), LongAnswer::Download.most());
        assert!(!crowd.everybody().long.iter().any(|(_, watch)| *watch == all[0]));
    }
}
