//! The lists a day is begun with.

use super::day::DayBatch;
use super::laid::{DayLayout, WITH_THE_NEXT};
use super::list::List;
use super::places::Back;

impl DayLayout<'_> {
    /// Lists to begin with: the batches as they are given, and by what makes one worth beginning with, each way round; of each order the
    /// doughs all beforehand, or one batch after the other, or the trays of all in turn.
    pub(super) fn starts(&self) -> Vec<List> {
        let batches = &self.day.batches;
        let units: usize = batches.iter().map(|b| b.trays() + 1).sum();
        let way = if self.day.kitchen.racks_per_oven > 1 { WITH_THE_NEXT } else { 0 };
        let list = |order: Vec<u16>| List { order, ways: vec![way; units] };
        let cuts = |b: &DayBatch| b.cut_min.iter().sum::<Back>();
        let before = |b: &DayBatch| b.mix_min + b.bulk_min + b.form_min + b.chill_min;
        let after = |b: &DayBatch| b.tray_chill_min + b.bake_min + b.cool_min;
        type Key<'k> = Box<dyn Fn(&DayBatch) -> f64 + 'k>;
        let keys: [Key; 6] = [
            Box::new(|b| b.oven_c),
            Box::new(|b| f64::from(before(b))),
            Box::new(|b| f64::from(cuts(b))),
            Box::new(|b| f64::from(after(b))),
            Box::new(|b| f64::from(before(b) - after(b))),
            Box::new(|b| f64::from(b.mix_min + b.form_min + cuts(b))),
        ];
        let given: Vec<usize> = (0..batches.len()).rev().collect();
        let mut orders = vec![given.clone()];
        for key in keys {
            let mut up = given.clone();
            up.sort_by(|&a, &b| key(&batches[a]).total_cmp(&key(&batches[b])));
            let mut down = given.clone();
            down.sort_by(|&a, &b| key(&batches[b]).total_cmp(&key(&batches[a])));
            orders.extend([up, down]);
        }
        let chain = |b: usize| u16::try_from(b).unwrap_or(u16::MAX);
        let mut lists = vec![];
        for mut order in orders {
            order.sort_by_key(|&b| batches[b].wanted_before_min);
            let trays_first = (order.iter().flat_map(|&b| vec![chain(b); batches[b].trays()]))
                .chain(order.iter().map(|&b| chain(b)))
                .collect();
            let one_by_one = order.iter().flat_map(|&b| vec![chain(b); batches[b].trays() + 1]).collect();
            let most = batches.iter().map(|b| b.trays() + 1).max().unwrap_or(0);
            let in_turn = (0..most)
                .flat_map(|i| order.iter().filter(move |&&b| i <= batches[b].trays()).map(|&b| chain(b)))
                .collect();
            lists.extend([list(trays_first), list(one_by_one), list(in_turn)]);
        }
        lists
    }
}
