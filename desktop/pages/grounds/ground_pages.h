// What a ground's page shows of its kind: one file a kind. The page itself adds what several kinds have.
#pragma once

#include <QString>
#include <vector>

#include "core/finish/finish.h"
#include "desktop/pages/field_form.h"

namespace lacquer {

/// What it is called, in small letters: the page's title, and the shelf.
QString kind_words(const PictureGround& ground);
QString kind_words(const GradientGround& ground);
QString kind_words(const CurveGround& ground);
QString kind_words(const SceneGround& ground);
QString kind_words(const CaptureGround& ground);
QString kind_words(const MarksGround& ground);
QString kind_words(const SpriteGround& ground);
QString kind_words(const TableGround& ground);
QString kind_words(const DropletsGround& ground);

/// What the shelf says below a card's picture, before its size.
QString facts_of(const PictureGround& ground);
QString facts_of(const GradientGround& ground);
QString facts_of(const CurveGround& ground);
QString facts_of(const SceneGround& ground);
QString facts_of(const CaptureGround& ground);
QString facts_of(const MarksGround& ground);
QString facts_of(const SpriteGround& ground);
QString facts_of(const TableGround& ground);
QString facts_of(const DropletsGround& ground);

/// The fields that only this kind has.
std::vector<Field> fields_of(const PictureGround& ground, const Finish& finish);
std::vector<Field> fields_of(const GradientGround& ground, const Finish& finish);
std::vector<Field> fields_of(const CurveGround& ground, const Finish& finish);
std::vector<Field> fields_of(const SceneGround& ground, const Finish& finish);
std::vector<Field> fields_of(const CaptureGround& ground, const Finish& finish);
std::vector<Field> fields_of(const MarksGround& ground, const Finish& finish);
std::vector<Field> fields_of(const SpriteGround& ground, const Finish& finish);
std::vector<Field> fields_of(const TableGround& ground, const Finish& finish);
std::vector<Field> fields_of(const DropletsGround& ground, const Finish& finish);

/// Takes what was typed into one of them, and gives back what was wrong with it; empty if nothing was.
QString change_field(PictureGround& ground, const QString& key, const QString& text);
QString change_field(GradientGround& ground, const QString& key, const QString& text);
QString change_field(CurveGround& ground, const QString& key, const QString& text);
QString change_field(SceneGround& ground, const QString& key, const QString& text);
QString change_field(CaptureGround& ground, const QString& key, const QString& text);
QString change_field(MarksGround& ground, const QString& key, const QString& text);
QString change_field(SpriteGround& ground, const QString& key, const QString& text);
QString change_field(TableGround& ground, const QString& key, const QString& text);
QString change_field(DropletsGround& ground, const QString& key, const QString& text);

}  // namespace lacquer
