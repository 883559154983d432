//! The API of Order and Dough on temporary bakeries.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::http::{Method, StatusCode};
use serde_json::{Value, json};

fn read(text: &str) -> Value {
    json!({ "text": text, "way": "spooned", "cups": "us", "eggs": "us_large" })
}

#[actix_web::test]
async fn a_recipe_is_read_line_by_line_with_confidence_and_reasons() {
    let (_dir, store) = demo().await;
    let text = "Quay biscuits\n\nIngredients\n2 cups flour\n1 cup butter\na knob of honey\n1 cup sugar\nFor the glaze:\n1 cup icing sugar";
    let (status, reading) = call(&store, Method::POST, "/api/recipes/read", Some(read(text))).await;
    assert_eq!((status, &reading["title"], &reading["open"]), (StatusCode::OK, &json!("Quay biscuits"), &json!(1)));
    let states: Vec<&str> = reading["lines"].as_array().unwrap().iter().map(|l| l["state"].as_str().unwrap()).collect();
    assert_eq!(states, ["heading", "fair", "sure", "asks", "sure", "heading", "left_out"]);
    let flour = &reading["lines"][1];
    assert_eq!((flour["grams"].as_f64().map(f64::round), &flour["bakers_percent"]), (Some(250.0), &json!(100.0)));
    assert!(flour["why"][1]["text"].as_str().unwrap().contains("spooned and leveled, is 125 g"), "{flour}");
    assert_eq!((&reading["formula"], &reading["lines"][3]["doubt"]), (&Value::Null, &json!("no_amount")));
    let mut settled = read(text);
    settled["answers"] = json!([{ "line": 6, "grams": 20 }]);
    settled["name"] = json!("Quay");
    let (_, reading) = call(&store, Method::POST, "/api/recipes/read", Some(settled)).await;
    assert_eq!((&reading["formula"]["name"], &reading["formula"]["lines"][2]["grams"]), (&json!("Quay"), &json!(20.0)));
    let (status, formula) = call(&store, Method::POST, "/api/formulas", Some(reading["formula"].clone())).await;
    assert_eq!((status, &formula["version"]), (StatusCode::OK, &json!(1)));
}

#[actix_web::test]
async fn recipes_that_go_wrong_get_a_clear_answer() {
    let (_dir, store) = demo().await;
    let big = "x".repeat(300_000);
    for (text, says) in [
        ("", "Add a recipe."),
        (big.as_str(), "200 kB at most"),
        ("{\"@type\": \"Thing\"}", "recipe"),
        ("<p>hello</p>", "paste them as text"),
    ] {
        let (status, problem) = call(&store, Method::POST, "/api/recipes/read", Some(read(text))).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        let said = field_messages(&problem);
        assert!(said[0].0 == "text" && said[0].1.contains(says), "{said:?}");
    }
    let five = json!({ "text": "y".repeat(5_000_000), "way": "spooned", "cups": "us", "eggs": "us_large" });
    let (status, _) = call(&store, Method::POST, "/api/recipes/read", Some(five)).await;
    assert_eq!(status, StatusCode::PAYLOAD_TOO_LARGE);
    let many = format!("Ingredients\n{}", "1 g salt\n".repeat(400));
    let (_, reading) = call(&store, Method::POST, "/api/recipes/read", Some(read(&many))).await;
    assert!(reading["faults"][0].as_str().unwrap().contains("of 401 lines"));
    assert_eq!(reading["missing"], "At most 60 lines. You have 199.");
}

#[actix_web::test]
async fn a_formula_is_shown_beside_its_nearest_and_any_other() {
    let (_dir, store) = demo().await;
    let formulas = get(&store, "/api/formulas").await;
    let id = formulas.as_array().unwrap().iter().find(|f| f["name"] == "Lemon-thyme").unwrap()["id"].clone();
    let beside = get(&store, &format!("/api/formulas/{id}/beside")).await;
    assert_eq!((&beside["own"]["name"], &beside["neighbour"]["name"]), (&json!("Lemon-thyme"), &json!("Honey-oat")));
    assert_eq!(beside["neighbours"].as_array().unwrap().len(), 9);
    assert!(!beside["differences"].as_array().unwrap().is_empty());
    let whole: f64 = beside["own"]["balance"].as_object().unwrap().values().map(|v| v.as_f64().unwrap()).sum();
    assert!((whole - 1.0).abs() < 1e-9);
    let school = get(&store, &format!("/api/formulas/{id}/beside?with=school:0")).await;
    assert_eq!(school["neighbour"]["name"], "a plain 1 : 1 : 3 by cups dough");
    // A neighbour that is not there any more: the nearest stands in.
    let gone = get(&store, &format!("/api/formulas/{id}/beside?with=formula:99")).await;
    assert_eq!(gone["neighbour"]["name"], "Honey-oat");
}

#[actix_web::test]
async fn a_pulled_lever_keeps_nothing_until_its_formula_is_sent_back() {
    let (_dir, store) = demo().await;
    let lever = json!({ "kind": "swap", "from": "butter", "to": "shortening", "share_percent": 100 });
    let before = get(&store, "/api/formulas").await;
    let (status, pulled) = call(&store, Method::POST, "/api/formulas/1/pull", Some(lever)).await;
    assert_eq!(status, StatusCode::OK, "{pulled}");
    assert_eq!(get(&store, "/api/formulas").await, before);
    // 225 g of butter at 81.1 % hold 182.5 g of fat.
    let shortening = pulled["changes"].as_array().unwrap().iter().find(|c| c["ingredient"] == "shortening").unwrap();
    assert!((shortening["after_g"].as_f64().unwrap() - 182.475).abs() < 0.01);
    assert!(
        pulled["differences"][0]["text"].as_str().unwrap().contains("Mostly shortening (before: butter)"),
        "{}",
        pulled["differences"]
    );
    call(&store, Method::PUT, "/api/formulas/1", Some(pulled["formula"].clone())).await;
    let versions = get(&store, "/api/formulas/1/versions").await;
    assert_eq!((versions.as_array().unwrap().len(), &versions[0]["number"]), (2, &json!(2)));
    assert_eq!(versions[0]["changes"].as_array().unwrap().len(), 3);
    call(&store, Method::POST, "/api/undo", None).await;
    let mut back = get(&store, "/api/formulas").await;
    // Undo is a change like any other: only the count of changes has gone on.
    for (formula, was) in back.as_array_mut().unwrap().iter_mut().zip(before.as_array().unwrap()) {
        formula["revision"] = was["revision"].clone();
    }
    assert_eq!(back, before);
    for (bad, field) in [
        (json!({ "kind": "swap", "from": "butter", "to": "sugar", "share_percent": 100 }), "to"),
        (json!({ "kind": "rich", "factor": 9 }), "factor"),
        (json!({ "kind": "moon" }), "kind"),
    ] {
        let (status, problem) = call(&store, Method::POST, "/api/formulas/1/pull", Some(bad)).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(problem["errors"][0]["field"] == field || field == "kind", "{problem}");
    }
}

#[actix_web::test]
async fn a_job_keeps_the_version_it_is_told_to_and_can_follow_the_newest_again() {
    let (_dir, store) = demo().await;
    let mut formula =
        get(&store, "/api/formulas").await.as_array().unwrap().iter().find(|f| f["id"] == 1).unwrap().clone();
    let before = get(&store, "/api/jobs/1/plan").await["dough"]["weights"].clone();
    let body = formula.as_object_mut().unwrap();
    body.retain(|key, _| key == "name" || key == "lines");
    body["lines"][0]["grams"] = json!(500);
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "formula_version": 1 }))).await;
    call(&store, Method::PUT, "/api/formulas/1", Some(formula)).await;
    assert_eq!(get(&store, "/api/jobs/1/plan").await["dough"]["weights"], before);
    assert_eq!(get(&store, "/api/jobs/1/mixing").await["version"], 1);
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "formula_version": null }))).await;
    assert_ne!(get(&store, "/api/jobs/1/plan").await["dough"]["weights"], before);
    let (status, problem) = call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "formula_version": 9 }))).await;
    assert_eq!((status, &problem["errors"][0]["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("formula_version")));
}

#[actix_web::test]
async fn lots_share_one_dough_and_the_rest_waits_in_the_freezer() {
    let (_dir, store) = demo().await;
    let alone = get(&store, "/api/jobs/1/plan").await;
    let other = get(&store, "/api/jobs/3/plan").await["dough"]["dough_g"].as_f64().unwrap();
    let (status, _) = call(&store, Method::PATCH, "/api/jobs/3", Some(json!({ "dough_with": 1 }))).await;
    assert_eq!(status, StatusCode::OK);
    let shared = get(&store, "/api/jobs/1/plan").await;
    let own = alone["dough"]["dough_g"].as_f64().unwrap();
    assert!((shared["dough"]["dough_g"].as_f64().unwrap() - own - other).abs() < 1e-6);
    assert_eq!(shared["dough"]["parts"][1]["part_use"], "other_job");
    assert_eq!(shared["shape"]["rolls"], alone["shape"]["rolls"]);
    for (job, with, says) in [(1, 1, "itself"), (1, 3, "already shares"), (2, 1, "same recipe")] {
        let (status, problem) =
            call(&store, Method::PATCH, &format!("/api/jobs/{job}"), Some(json!({ "dough_with": with }))).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(field_messages(&problem)[0].1.contains(says), "{problem}");
    }
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "freeze_pieces": 24 }))).await;
    let part = get(&store, "/api/jobs/1/plan").await;
    let uses: Vec<&Value> = part["dough"]["parts"].as_array().unwrap().iter().map(|p| &p["part_use"]).collect();
    assert_eq!(uses, ["bake", "freeze", "other_job"]);
    let cut: u64 = part["shape"]["rolls"].as_array().unwrap().iter().map(|r| r["pieces"].as_u64().unwrap()).sum();
    assert_eq!(cut, 24);
}

#[actix_web::test]
async fn the_size_answers_with_what_runs_out_and_how_many_pieces_that_is() {
    let (_dir, store) = demo().await;
    let plan = get(&store, "/api/jobs/1/plan").await;
    let by = json!({ "by": "dough", "dough_g": plan["dough"]["dough_g"] });
    let (_, same) = call(&store, Method::POST, "/api/jobs/1/size", Some(by)).await;
    assert_eq!(same["pieces"], 48);
    let hand = json!({ "by": "on_hand", "on_hand": [{ "ingredient": "butter", "grams": 340 }, { "ingredient": "egg", "grams": 50 }] });
    let (_, sized) = call(&store, Method::POST, "/api/jobs/1/size", Some(hand)).await;
    // The formula takes 50 g of egg to 225 g of butter: the egg runs out at once the formula, 115 g of butter stay.
    assert_eq!((&sized["scarce"], &sized["factor"]), (&json!("Whole egg"), &json!(1.0)));
    assert!((sized["over"][0]["mass_g"].as_f64().unwrap() - 115.0).abs() < 1e-9);
    let bad = json!({ "by": "on_hand", "on_hand": [{ "ingredient": "honey", "grams": 5 }] });
    let (status, problem) = call(&store, Method::POST, "/api/jobs/1/size", Some(bad)).await;
    assert_eq!(
        (status, &problem["errors"][0]["field"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("on_hand[0].ingredient"))
    );
}

#[actix_web::test]
async fn the_bowl_is_noted_with_the_mix_counts_towards_the_limit_and_teaches() {
    let (_dir, store) = demo().await;
    let ask = json!({ "mix": 1, "feel": "too_sticky", "squeeze": "clings" });
    let (_, first) = call(&store, Method::POST, "/api/jobs/1/bowl/advice", Some(ask.clone())).await;
    assert_eq!((&first["add"], &first["amount_g"]), (&json!("flour-ap"), &json!(7.0)));
    let note = json!({ "mix": 1, "feel": "too_sticky", "squeeze": "clings", "ingredient": "flour-ap", "added_g": 20 });
    let (status, kept) = call(&store, Method::POST, "/api/jobs/1/bowl", Some(note)).await;
    assert_eq!((status, &kept["formula_version"]), (StatusCode::OK, &json!(1)));
    let (_, second) = call(&store, Method::POST, "/api/jobs/1/bowl/advice", Some(ask)).await;
    assert_eq!((&second["added_before_g"], &second["amount_g"]), (&json!(20.0), &json!(1.0)));
    let sheet = get(&store, "/api/jobs/1/mixing").await;
    let learnt = sheet["learnt"]["flour_percent"].as_f64().unwrap();
    assert!((learnt - 100.0 * 20.0 / sheet["flour_g"].as_f64().unwrap()).abs() < 1e-9);
    let (status, problem) = call(
        &store,
        Method::POST,
        "/api/jobs/1/bowl",
        Some(json!({ "mix": 4, "feel": "too_warm", "squeeze": "smears" })),
    )
    .await;
    assert_eq!((status, &problem["errors"][0]["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("mix")));
    let (status, _) = call(&store, Method::DELETE, &format!("/api/bowl/{}", kept["id"]), None).await;
    assert_eq!(status, StatusCode::NO_CONTENT);
    assert_eq!(get(&store, "/api/jobs/1/mixing").await["learnt"], Value::Null);
}

#[actix_web::test]
async fn the_pantry_takes_own_ingredients_and_prices_and_the_label_follows() {
    let (_dir, store) = demo().await;
    let all = get(&store, "/api/ingredients").await;
    assert!(all.as_array().unwrap().len() >= 60);
    let butter = all.as_array().unwrap().iter().find(|i| i["key"] == "butter").unwrap();
    assert_eq!((&butter["price_per_kg"], &butter["own"]), (&json!(9.2), &json!(false)));
    let body = json!({
        "name": "Harbour butter", "kind": "fat", "fat_kind": "butter", "allergens": ["milk"],
        "analysis": { "water_g": 15, "fat_g": 84, "protein_g": 1, "carbohydrate_g": 0, "sugars_g": 0, "fibre_g": 0, "ash_g": 0 },
        "household": { "stick_g": 125 }
    });
    let (status, own) = call(&store, Method::POST, "/api/ingredients", Some(body.clone())).await;
    assert_eq!((status, &own["own"]), (StatusCode::OK, &json!(true)), "{own}");
    let key = own["key"].as_str().unwrap();
    let (status, problem) = call(&store, Method::POST, "/api/ingredients", Some(body.clone())).await;
    assert_eq!((status, &problem["errors"][0]["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("name")));
    let mut heavy = body.clone();
    heavy["analysis"]["water_g"] = json!(80);
    let (_, problem) = call(&store, Method::PUT, &format!("/api/ingredients/{key}"), Some(heavy)).await;
    assert_eq!(field_messages(&problem)[0].1, "Use 98 to 102 g per 100 g. You typed 165 g per 100 g.");
    let (_, reading) =
        call(&store, Method::POST, "/api/recipes/read", Some(read("1 stick harbour butter\n300 g flour"))).await;
    assert_eq!((&reading["lines"][0]["ingredient"], &reading["lines"][0]["grams"]), (&json!(key), &json!(125.0)));
    let (_, formula) = call(&store, Method::POST, "/api/formulas", Some(reading["formula"].clone())).await;
    let (status, _) = call(&store, Method::DELETE, &format!("/api/ingredients/{key}"), None).await;
    assert_eq!(status, StatusCode::CONFLICT);
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "formula_id": formula["id"] }))).await;
    let label = get(&store, "/api/jobs/1/label").await;
    assert_eq!(label["without_price"], json!(["Harbour butter"]));
    assert_eq!(label["cost_a_piece"], Value::Null);
    call(&store, Method::PUT, &format!("/api/ingredients/{key}/price"), Some(json!({ "price_per_kg": 12 }))).await;
    let label = get(&store, "/api/jobs/1/label").await;
    let (cost, pieces) = (label["cost"].as_f64().unwrap(), label["pieces"].as_f64().unwrap());
    assert!((label["cost_a_piece"].as_f64().unwrap() - cost / pieces).abs() < 1e-12);
    assert_eq!(label["text"], "All-purpose flour (WHEAT), harbour butter (MILK).");
    for (price, status) in
        [(json!(-1), StatusCode::UNPROCESSABLE_ENTITY), (json!("dear"), StatusCode::UNPROCESSABLE_ENTITY)]
    {
        let (got, _) =
            call(&store, Method::PUT, "/api/ingredients/butter/price", Some(json!({ "price_per_kg": price }))).await;
        assert_eq!(got, status);
    }
    assert_eq!(
        call(&store, Method::PUT, "/api/ingredients/moon/price", Some(json!({ "price_per_kg": 1 }))).await.0,
        StatusCode::NOT_FOUND
    );
}

#[actix_web::test]
async fn a_formula_leaves_in_every_format_and_comes_back_with_the_same_lines() {
    let (_dir, store) = demo().await;
    let shelf = get(&store, "/api/formulas").await;
    let lines = shelf.as_array().unwrap().iter().find(|f| f["id"] == 1).unwrap()["lines"].clone();
    for (format, kind) in [
        ("text", "text/plain; charset=utf-8"),
        ("json-ld", "application/ld+json"),
        ("csv", "text/csv; charset=utf-8"),
        ("json", "application/json"),
    ] {
        let (status, got, body) = send(&store, from_page(Method::GET, &format!("/api/formulas/1/as/{format}"))).await;
        assert_eq!((status, got.as_str()), (StatusCode::OK, kind));
        let text = String::from_utf8(body).unwrap();
        let (_, reading) = call(&store, Method::POST, "/api/recipes/read", Some(read(&text))).await;
        assert_eq!(reading["formula"]["lines"], lines, "{format}: {text}");
    }
    let (status, _, _) = send(&store, from_page(Method::GET, "/api/formulas/1/as/parchment")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let (status, _) = call(&store, Method::DELETE, "/api/formulas/1", None).await;
    assert_eq!(status, StatusCode::CONFLICT);
}

#[actix_web::test]
async fn a_job_takes_its_own_ingredients_along_to_another_bakery() {
    let (_dir, store) = demo().await;
    let body = json!({
        "name": "Harbour butter", "kind": "fat", "fat_kind": "butter",
        "analysis": { "water_g": 15, "fat_g": 84, "protein_g": 1, "carbohydrate_g": 0, "sugars_g": 0, "fibre_g": 0, "ash_g": 0 }
    });
    let (_, own) = call(&store, Method::POST, "/api/ingredients", Some(body)).await;
    let formula = json!({ "name": "Harbour", "lines": [
        { "ingredient": "flour-ap", "grams": 300 }, { "ingredient": own["key"], "grams": 150 } ] });
    let (_, formula) = call(&store, Method::POST, "/api/formulas", Some(formula)).await;
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "formula_id": formula["id"] }))).await;
    let file = get(&store, "/api/jobs/1/export").await;
    let (_other_dir, other) = demo().await;
    for _ in 0..2 {
        let (status, job) = call(&other, Method::POST, "/api/jobs/read-back", Some(file.clone())).await;
        assert_eq!(status, StatusCode::OK, "{job}");
        let again = get(&other, &format!("/api/jobs/{}/export", job["id"])).await;
        assert_eq!(again["ingredients"][0]["ingredient"], file["ingredients"][0]["ingredient"]);
    }
    // The second time it was there already.
    let all = get(&other, "/api/ingredients").await;
    assert_eq!(all.as_array().unwrap().iter().filter(|i| i["name"] == "Harbour butter").count(), 1);
    let mut broken = file;
    broken["ingredients"][0]["ingredient"]["analysis"]["fat_g"] = json!(200);
    let (status, problem) = call(&other, Method::POST, "/api/jobs/read-back", Some(broken)).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(field_messages(&problem)[0].0, "ingredients[0].ingredient.fat_g");
}

/// A cup of the US is 236.6 mL, a metric one 250 mL (NIST Handbook 44; common practice): the same spoonful weighs 5.7 % more there.
#[actix_web::test]
async fn a_cup_of_flour_is_told_in_the_cups_that_are_meant() {
    let (_dir, store) = demo().await;
    let told = async |cups: &str| {
        let body = json!({"text": "2 cups flour", "way": "spooned", "cups": cups, "eggs": "us_large"});
        let (status, read) = call(&store, Method::POST, "/api/recipes/read", Some(body)).await;
        assert_eq!(status, StatusCode::OK, "{read}");
        serde_json::from_value::<Vec<f64>>(read["cup_of_flour_g"].clone()).unwrap()
    };
    let (us, metric) = (told("us").await, told("metric").await);
    assert_eq!(us.iter().map(|g| g.round()).collect::<Vec<_>>(), [125.0, 150.0, 115.0]);
    for (a, b) in us.iter().zip(&metric) {
        assert!((b / a - 250.0 / 236.588).abs() < 1e-4, "{us:?} {metric:?}");
    }
}
